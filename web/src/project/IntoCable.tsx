/** Which cable wires are gathered into: a new one, or one that has cores to spare. */
import type { Schemas } from '../api/shapes'
import { PanelPick } from '../kit/Pick'

/** Stands for a cable that is not there yet. */
export const NEW_CABLE = 'new'

interface Props {
  cables: Schemas['CablesView']['cables']
  value: string
  onPick: (id: string) => void
}

export function IntoCable({ cables, value, onPick }: Props) {
  const open = cables.filter((c) => c.spare > 0 || !c.part)
  const options = [
    { id: NEW_CABLE, name: 'a new cable' },
    ...open.map((c) => ({ id: c.id, name: `${c.tag}, ${c.part ? `${c.spare} spare` : 'no part yet'}` })),
  ]
  return <PanelPick {...{ label: 'Into', value, options, onPick }} />
}
