/** The pins of a block by side: typed in order, a dot for a place left free; the rest waits for another block. */
import Box from '@mui/material/Box'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Item } from '../../scene/item'
import { MONO } from '../../theme/theme'
import { Act } from '../../kit/Act'
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { useTools } from './store'

const SIDES = ['top', 'left', 'right', 'bottom'] as const
type Sides = Record<(typeof SIDES)[number], string[]>
const FREE = '·'

export function BlockSection({ symbol }: { symbol: Item }) {
  const { projectId, revision, send } = usePick('projectId', 'revision', 'send')
  const found = useQuery({
    queryKey: ['block', projectId, symbol.id, revision],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/blocks/{symbol_id}', {
          params: { path: { project_id: projectId, symbol_id: symbol.id } },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  })
  if (!found.data) return null
  const { sides, free } = found.data
  const save = (side: string, typed: string) => {
    const names = typed
      .split(/[\s,]+/)
      .filter(Boolean)
      .map((n) => (n === FREE ? '' : n))
    // A pin that is put on one side leaves the one it was on.
    const next = Object.fromEntries(
      SIDES.map((s) => [s, s === side ? names : sides[s].filter((n) => !n || !names.includes(n))]),
    ) as Sides
    void send({ kind: 'arrange-block', symbol_id: symbol.id, ...next, width: 0 })
  }
  return (
    <Section title="Pins of the block">
      {SIDES.map((side) => (
        <Field
          key={side}
          label={side}
          mono
          value={sides[side].map((n) => n || FREE).join(' ')}
          onSave={(typed) => save(side, typed)}
        />
      ))}
      <Box sx={{ fontSize: 11.5, color: 'text.secondary', mb: 0.5 }}>
        In order, parted by spaces; {FREE} leaves a place free. Pins you take out can go on another block.
      </Box>
      {free.length > 0 && (
        <>
          <Rest {...{ symbol, free }} />
        </>
      )}
    </Section>
  )
}

interface RestProps {
  symbol: Item
  free: string[]
}

function Rest({ symbol, free }: RestProps) {
  const { send, sheetId, caret } = { ...usePick('send', 'sheetId'), ...useTools('caret') }
  return (
    <>
      <Box sx={{ fontFamily: MONO, fontSize: 12 }}>{free.join(' ')}</Box>
      <Act
        onClick={() =>
          void send({
            kind: 'place-block',
            sheet_id: sheetId,
            x: caret[0],
            y: caret[1],
            device_id: symbol.facts.device ?? '',
            part_id: '',
            pins: [],
            text: '',
          })
        }
      >
        Put the rest at the caret
      </Act>
    </>
  )
}
