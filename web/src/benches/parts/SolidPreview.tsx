/** A part's picture in space, turned by dragging, with its size beside that of the part. */
import { Canvas } from '@react-three/fiber'
import Box from '@mui/material/Box'
import { Turning } from '../../project/Turning'
import { useModel } from '../../project/useModel'
import { LINE, QUIET, SNAG } from '../../theme/theme'
import type { PartRecord } from './kinds'

const FAR = 2.4
/** So far the picture may differ from the part before it is said, mm. */
const NEAR_MM = 2

export function SolidPreview({ record }: { record: PartRecord }) {
  const { solid, solid_front, solid_up } = record
  const { model, problem } = useModel(solid, solid_front, solid_up)
  if (problem) return <Box sx={{ fontSize: 12.5, color: SNAG }}>{problem}</Box>
  if (!model) return <Box sx={{ fontSize: 12.5, color: QUIET }}>Reading {solid}…</Box>
  const [width, height, depth] = model.size
  const scale = 1 / Math.max(width, height, depth, 1)
  const wanted = [record.width_mm, record.height_mm, record.depth_mm]
  const other = model.size.some((v, n) => wanted[n]! > 0 && Math.abs(v - wanted[n]!) > NEAR_MM)
  const shown = model.size.map((v) => Math.round(v * 10) / 10).join(' × ')
  return (
    <Box data-testid="solid" sx={{ mb: 0.5 }}>
      <Box sx={{ height: 170, border: `1px solid ${LINE}` }}>
        <Canvas
          camera={{ position: [FAR * 0.45, FAR * 0.3, FAR], fov: 30 }}
          style={{ background: '#EAE4D6' }}
          frameloop="demand"
        >
          <ambientLight intensity={1.8} />
          <directionalLight position={[4, 8, 10]} intensity={1.2} />
          <Turning />
          <primitive object={model.group} scale={scale} position={[0, 0, (-depth * scale) / 2]} />
        </Canvas>
      </Box>
      <Box sx={{ fontSize: 12, color: other ? SNAG : QUIET }}>
        {shown} mm{other && `, the part says ${wanted.join(' × ')}`}
      </Box>
    </Box>
  )
}
