/** How tall an element is just now, which what is painted of a long list depends on. */
import { useEffect, useState, type RefObject } from 'react'

export function useHeight(element: RefObject<HTMLElement | null>, atFirst: number): number {
  const [height, setHeight] = useState(atFirst)
  useEffect(() => {
    const shown = element.current
    if (!shown) return
    const watch = new ResizeObserver(() => setHeight(shown.clientHeight))
    watch.observe(shown)
    return () => watch.disconnect()
  }, [element])
  return height
}
