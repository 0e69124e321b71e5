/** Where things would land: their outlines, dashed the room their parts ask for; what is pushed along with them. */
import { COPPER } from '../../theme/theme'
import type { LandingValue } from './useLanding'

export function LandingGhost({ landing, margin: m }: { landing: LandingValue; margin: number }) {
  return (
    <g data-testid="landing" pointerEvents="none">
      {landing.things.map(({ id, box, room }) => {
        const [x, y, x2, y2] = box
        const asks = room.some((v, n) => v !== box[n])
        if (x === x2 || y === y2)
          return (
            <line
              key={id}
              x1={x + m}
              y1={y + m}
              x2={x2 + m}
              y2={y2 + m}
              stroke={COPPER}
              strokeWidth={8}
              opacity={0.5}
            />
          )
        return (
          <g key={id}>
            <rect
              x={x + m}
              y={y + m}
              width={x2 - x}
              height={y2 - y}
              fill="rgba(180,98,45,0.22)"
              stroke={COPPER}
              strokeWidth={2}
            />
            {asks && (
              <rect
                data-testid="room"
                x={room[0] + m}
                y={room[1] + m}
                width={room[2] - room[0]}
                height={room[3] - room[1]}
                fill="none"
                stroke={COPPER}
                strokeWidth={1.2}
                strokeDasharray="6 4"
              />
            )}
          </g>
        )
      })}
    </g>
  )
}
