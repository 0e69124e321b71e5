/** The conductors of a wire's net, and the order of its pins: a pin moved up or down makes an order of one's own. */
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import type { WireRow } from '../../api/shapes'
import { MONO, QUIET } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'

interface Props {
  wireId: string
  rows: WireRow[]
  canEdit: boolean
}

interface Pin {
  key: string
  name: string
}

/** The pins as the conductors lead from one to the next, each once. */
function pinsInOrder(rows: WireRow[]): Pin[] {
  const found = new Map<string, Pin>()
  for (const row of rows) {
    found.set(row.pins[0], { key: row.pins[0], name: row.from })
    found.set(row.pins[1], { key: row.pins[1], name: row.to })
  }
  const beside = (key: string) =>
    rows.filter((r) => r.pins.includes(key)).map((r) => (r.pins[0] === key ? r.pins[1] : r.pins[0]))
  const start = [...found.keys()].find((key) => beside(key).length === 1)
  const order: Pin[] = []
  const seen = new Set<string>()
  const visit = (key: string) => {
    if (seen.has(key)) return
    seen.add(key)
    order.push(found.get(key)!)
    beside(key).forEach(visit)
  }
  if (start) visit(start)
  ;[...found.keys()].forEach(visit)
  return order
}

export function NetOrder({ wireId, rows, canEdit }: Props) {
  const { send } = usePick('send')
  const pins = pinsInOrder(rows)
  const own = rows.some((r) => r.own)
  const move = (at: number, by: number) => {
    const keys = pins.map((p) => p.key)
    const [key] = keys.splice(at, 1)
    keys.splice(at + by, 0, key!)
    const pairs = keys.slice(1).map((next, n) => `${keys[n]}-${next}`)
    void send({ kind: 'order-net', wire_id: wireId, pairs })
  }
  return (
    <>
      <Section title="Connections">
        {rows.length === 0 && <Box sx={{ color: 'text.secondary' }}>It joins no two pins yet.</Box>}
        {rows.map((r) => (
          <Box key={r.id} sx={{ fontFamily: MONO, fontSize: 12.5, py: 0.25 }}>
            {r.from} → {r.to}
          </Box>
        ))}
      </Section>
      {canEdit && pins.length > 2 && (
        <Section title={own ? 'Wired in your order' : 'Wired in the usual order'}>
          {pins.map((pin, n) => (
            <Box
              key={pin.key}
              sx={{ display: 'flex', alignItems: 'center', fontFamily: MONO, fontSize: 12.5 }}
            >
              <Box sx={{ flex: 1 }}>{pin.name}</Box>
              <Step label={`${pin.name} earlier`} off={n === 0} run={() => move(n, -1)}>
                <ArrowUpwardIcon sx={{ fontSize: 15 }} />
              </Step>
              <Step label={`${pin.name} later`} off={n === pins.length - 1} run={() => move(n, 1)}>
                <ArrowDownwardIcon sx={{ fontSize: 15 }} />
              </Step>
            </Box>
          ))}
          {own && (
            <Acts>
              <Act onClick={() => void send({ kind: 'order-net', wire_id: wireId, pairs: [] })}>
                Usual order
              </Act>
            </Acts>
          )}
          {!own && (
            <Box sx={{ color: QUIET, fontSize: 12 }}>Move a pin to say yourself how they are wired on.</Box>
          )}
        </Section>
      )}
    </>
  )
}

interface StepProps {
  label: string
  off: boolean
  run: () => void
  children: React.ReactNode
}

function Step({ label, off, run, children }: StepProps) {
  return (
    <IconButton size="small" aria-label={label} title={label} disabled={off} onClick={run} sx={{ p: 0.25 }}>
      {children}
    </IconButton>
  )
}
