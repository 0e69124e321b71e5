/** Which cable wires are gathered into: a new one, or one with cores to spare for them. */
import type { Schemas } from '../api/shapes'
import { PanelPick } from '../kit/Pick'

/** Stands for a cable that is not there yet. */
export const NEW_CABLE = 'new'

interface Props {
  cables: Schemas['CablesView']['cables']
  /** How many wires are gathered. */
  count: number
  value: string
  onPick: (id: string) => void
}

export function IntoCable({ cables, count, value, onPick }: Props) {
  const spare = cables.filter((c) => c.spare >= count)
  const options = [
    { id: NEW_CABLE, name: 'a new cable' },
    ...spare.map((c) => ({ id: c.id, name: `${c.tag}, ${c.spare} spare` })),
  ]
  return <PanelPick {...{ label: 'Into', value, options, onPick }} />
}
