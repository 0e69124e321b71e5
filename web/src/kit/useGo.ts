/** Going to another address, by a function that stays the same one while the address changes. */
import { useCallback, useEffect, useRef } from 'react'
import { useNavigate } from 'react-router'

export function useGo(): (to: string) => void {
  const navigate = useNavigate()
  const latest = useRef(navigate)
  useEffect(() => {
    latest.current = navigate
  }, [navigate])
  return useCallback((to: string) => void latest.current(to), [])
}
