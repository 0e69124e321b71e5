/** The forms of the bench, one at a time: a new strip, terminals put in, numbers, order, another strip. */
import { terminalsOf, type Row, type Strip, type StripLine } from './shapes'
import { GatherForm } from './GatherForm'
import { LayoutForm } from './LayoutForm'
import { MakeStrip } from './MakeStrip'
import { MoveForm } from './MoveForm'
import { NumberForm } from '../../project/NumberForm'
import { PutIn } from './PutIn'
import { SortForm } from './SortForm'
import type { Held } from './useHeld'

interface Props {
  held: Held
  strip: Strip | null
  strips: StripLine[]
  chosen: Row[]
  go: (id: string) => void
}

export function Forms({ held, strip, strips, chosen, go }: Props) {
  const close = () => held.open('')
  if (held.form === 'make')
    return <MakeStrip beside={strips.find((s) => s.id === strip?.id)} close={close} go={go} />
  if (!strip) return null
  if (held.form === 'put-in') return <PutIn {...{ strip, chosen, close }} />
  if (held.form === 'number')
    return <NumberForm {...{ strip, close }} units={terminalsOf(chosen).map((r) => r.unit)} />
  if (held.form === 'layout') return <LayoutForm {...{ strip, close }} />
  if (held.form === 'gather') return <GatherForm {...{ strip, chosen, close }} />
  if (held.form === 'sort') return <SortForm {...{ strip, chosen, close }} />
  if (held.form === 'move' || held.form === 'merge')
    return <MoveForm {...{ strip, strips, chosen, close, go, all: held.form === 'merge' }} />
  return null
}
