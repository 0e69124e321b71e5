/** Keeping the selection as a stamp: its name, the point that will lie on the caret, and what it shall ask. */
import Box from '@mui/material/Box'
import { useState } from 'react'
import { QUIET } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { StampForm } from './StampForm'
import { usePick } from '../../project/store'
import { useTools } from './store'
import { counted } from '../../kit/counted'

export function KeepStamp() {
  const { send, set, selection, view, caret } = {
    ...usePick('send', 'selection', 'view'),
    ...useTools('set', 'caret'),
  }
  const [anchored, setAnchored] = useState<[number, number] | null>(null)
  const ids = [...selection].filter((id) => id in view.items)
  const items = ids.map((id) => view.items[id]!)
  const devices = new Map<string, string>()
  for (const i of items) {
    const id = i.facts.device
    if (id && !devices.has(id)) devices.set(id, `${i.facts.tag ?? ''} ${i.facts.text ?? ''}`.trim())
    if (id && i.facts.text) devices.set(id, `${i.facts.tag ?? ''} ${i.facts.text}`.trim())
  }
  const types = new Set(items.filter((i) => i.kind === 'wire').map((i) => i.facts.type ?? ''))
  const things = [
    ...[...devices].map(([id, label]) => ({ id, kind: 'device', label })),
    ...items
      .filter((i) => i.kind === 'note' || i.kind === 'continuation')
      .map((i) => ({ id: i.id, kind: i.kind, label: i.facts.name ?? i.facts.text ?? i.kind })),
    ...[...types].map((id) => ({ id, kind: 'wire-type', label: `Wires of ${nameOfType(id)}` })),
  ]
  function nameOfType(id: string) {
    return Object.values(view.wires).find((w) => view.items[w.wire_id]?.facts.type === id)?.type ?? 'one type'
  }
  return (
    <StampForm
      title="Keep as stamp"
      verb="Keep"
      first={{ name: '', text: '', questions: [] }}
      things={things}
      ready={ids.length > 0}
      onSave={({ name, text, questions }) =>
        void send({
          kind: 'keep-stamp',
          ids,
          name,
          text,
          anchor_x: anchored?.[0] ?? null,
          anchor_y: anchored?.[1] ?? null,
          questions: questions as never,
        }).then((answer) => answer && set({ panel: 'stamps', selection: new Set() }))
      }
      onCancel={() => set({ panel: '' })}
    >
      <Box sx={{ fontSize: 12, color: QUIET }}>
        {ids.length ? `${counted(ids.length, 'thing')} selected` : 'Select what shall be kept.'}
      </Box>
      <Box sx={{ fontSize: 12.5, display: 'flex', alignItems: 'center', gap: 1 }}>
        <span style={{ flex: 1 }}>
          Caret point: {anchored ? `${anchored[0]}, ${anchored[1]}` : 'upper left corner'}
        </span>
        <Act onClick={() => setAnchored([...caret])} hint="The caret's place on the sheet">
          Caret
        </Act>
      </Box>
    </StampForm>
  )
}
