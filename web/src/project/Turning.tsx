/** Turning a picture in space by dragging, nearer and farther by the wheel. */
import { useThree } from '@react-three/fiber'
import { useEffect } from 'react'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'

export function Turning() {
  const { camera, gl, invalidate } = useThree()
  useEffect(() => {
    const controls = new OrbitControls(camera, gl.domElement)
    controls.addEventListener('change', () => invalidate())
    return () => controls.dispose()
  }, [camera, gl, invalidate])
  return null
}
