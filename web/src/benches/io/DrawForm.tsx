/** Drawing the channels of cards that are on no sheet yet: which, how many a sheet, from which feed and to which return. */
import Box from '@mui/material/Box'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { makeEdit } from '../../api/client'
import { FormDialog } from '../../kit/FormDialog'
import { PanelPick } from '../../kit/Pick'
import { usePick } from '../../project/store'
import { useOutline } from '../../project/useOutline'
import { usePreview } from '../../project/usePreview'
import { MONO, QUIET, SNAG } from '../../theme/theme'
import type { IoView } from './shapes'
import type { Io } from './useIo'

interface Props {
  io: Io
  view: IoView
  close: () => void
}

interface Wanted {
  which: string
  chosen: Set<string>
  perSheet: string
  feed: string
  back: string
}

/** The edit that draws what is wanted; what is not typed is the project's. */
function drawing({ which, chosen, perSheet, feed, back }: Wanted) {
  const per_sheet = Math.min(8, Math.max(1, Math.floor(Number(perSheet)) || 8))
  return makeEdit('draw-channels', {
    ...{ feed, back, per_sheet },
    device_ids: which === 'all' || which === 'chosen' ? [] : [which],
    ids: which === 'chosen' ? [...chosen] : [],
  })
}

export function DrawForm({ io, view, close }: Props) {
  const { send, say } = usePick('send', 'say')
  const settings = useOutline(io.projectId).data?.settings
  const [which, setWhich] = useState(io.chosen.size ? 'chosen' : 'all')
  const [perSheet, setPerSheet] = useState('8')
  const [feed, setFeed] = useState<string | null>(null)
  const [back, setBack] = useState<string | null>(null)
  const edit = drawing({ which, chosen: io.chosen, perSheet, feed: feed ?? '', back: back ?? '' })
  const preview = usePreview(edit)
  const problem = preview.error instanceof Error ? preview.error.message : ''
  const draw = () =>
    void send(edit).then((answer) => {
      if (!answer) return
      if (answer.remarks.length) say(`${answer.remarks.length} without what is connected; see the snags.`)
      close()
    })
  return (
    <FormDialog
      title="Draw channels"
      act="Draw"
      enabled={!problem && preview.data !== undefined}
      close={close}
      onAct={draw}
    >
      <PanelPick
        label="Which channels"
        value={which}
        options={[
          { id: 'all', name: 'all that have a point and are not drawn' },
          ...(io.chosen.size ? [{ id: 'chosen', name: `those of the ${io.chosen.size} points chosen` }] : []),
          ...view.cards.map((c) => ({ id: c.id, name: `those of ${c.tag}` })),
        ]}
        onPick={setWhich}
      />
      <Typed label="Channels a sheet, up to 8" value={perSheet} onType={setPerSheet} />
      <Typed label="Inputs are fed from" value={feed ?? settings?.channel_feed ?? ''} onType={setFeed} />
      <Typed label="Outputs return to" value={back ?? settings?.channel_return ?? ''} onType={setBack} />
      <Outcome problem={problem} rows={preview.data?.table ?? []} remarks={preview.data?.remarks ?? []} />
    </FormDialog>
  )
}

function Typed({ label, value, onType }: { label: string; value: string; onType: (value: string) => void }) {
  return (
    <TextField
      {...{ label, value, fullWidth: true, margin: 'dense' }}
      onChange={(e) => onType(e.target.value)}
    />
  )
}

/** What would be drawn where, and what has nothing known connected to it. */
function Outcome({ problem, rows, remarks }: { problem: string; rows: string[][]; remarks: string[] }) {
  return (
    <Box aria-label="What would be drawn" sx={{ maxHeight: 200, overflow: 'auto', fontSize: 12.5, mt: 1 }}>
      {problem && <span style={{ color: SNAG }}>{problem}</span>}
      {!problem &&
        rows.map(([sheet, count, points]) => (
          <div key={`${sheet} ${points}`} style={{ fontFamily: MONO }}>
            {sheet}: {count} ({points})
          </div>
        ))}
      {!problem && remarks.length > 0 && (
        <Box sx={{ color: QUIET, mt: 0.5 }}>
          Drawn by themselves: {remarks.slice(0, 6).join(' ')}
          {remarks.length > 6 && ` And ${remarks.length - 6} more.`}
        </Box>
      )}
    </Box>
  )
}
