/** Title blocks: cells with fields and pictures placed on a small canvas, as they look on a sheet. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import { useState, type ReactNode } from 'react'
import { client, got, wordsOf } from '../../api/client'
import { LINE, QUIET } from '../../theme/theme'
import { TableBar } from '../../kit/TableBar'
import { Bench, Choice, Heading } from '../../kit/Bench'
import { useBench } from '../../project/useBench'
import { useSheetTable } from '../../project/useSheetTable'
import { usePick, useProject } from '../../project/store'
import { BlockCanvas } from './BlockCanvas'
import { BlockPanel } from './BlockPanel'
import { CellPanel } from './CellPanel'
import { useSettings } from './FactsSection'
import type { Blocks } from './shapes'

export function BlocksSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const settings = useSettings()
  const [wanted, setBlock] = useState('')
  const [sheetId, setSheet] = useState('')
  const [picked, setPicked] = useState<string[]>([])
  const shown = wanted || settings['title_block_id'] || ''
  const blocks = useBlocks(shown, sheetId)
  const data = blocks.data
  if (!data)
    return (
      <Bench name="Brief" list={list}>
        <Box sx={{ p: 3, color: QUIET }}>{blocks.error ? wordsOf(blocks.error) : null}</Box>
      </Bench>
    )
  const own = data.project.some((b) => b.id === data.block.id)
  const take = async (block: string, name: string) => {
    const answer = await send({ kind: 'take-title-block', block, name })
    if (answer?.placed[0]) setBlock(answer.placed[0])
  }
  const keep = () => keepBlock(projectId, data.block).then(() => blocks.refetch())
  const cell = picked.length === 1 ? data.cells.find((c) => c.id === picked[0]) : undefined
  const choose = (id: string) => {
    setBlock(id)
    setPicked([])
  }
  const shownIn = { blocks: data, canEdit }
  return (
    <Bench
      name="Brief"
      list={
        <>
          {list}
          <Lists data={data} canEdit={canEdit} choose={choose} take={(id) => void take(id, '')} />
        </>
      }
      inspector={
        cell && own ? (
          <CellPanel key={cell.id} {...shownIn} cell={cell} onRemoved={() => setPicked([])} />
        ) : (
          <BlockPanel
            {...shownIn}
            {...{ own, picked }}
            onPick={setPicked}
            onTake={(name) => void take(data.block.id, name)}
            onGone={() => setBlock('')}
            onKeep={() => void keep()}
          />
        )
      }
    >
      <Bar block={data.block} sheetId={sheetId} setSheet={setSheet} />
      <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
        <BlockCanvas blocks={data} picked={picked} canEdit={canEdit && own} onPick={setPicked} />
      </Box>
      <Hint own={own} />
    </Bench>
  )
}

interface ListsProps {
  data: Blocks
  canEdit: boolean
  choose: (id: string) => void
  take: (id: string) => void
}

function Lists({ data, canEdit, choose, take }: ListsProps) {
  return (
    <>
      <Group title="In this project" lines={data.project} {...{ data, choose }} />
      <Group title="Built in" lines={data.built_in} {...{ data, choose }} />
      {data.library.length > 0 && (
        <>
          <Heading>In the library</Heading>
          {data.library.map((b) => (
            <Box key={b.id} sx={{ display: 'flex', alignItems: 'center', pl: 1 }}>
              <span style={{ flex: 1 }}>{b.name}</span>
              {canEdit && <Button onClick={() => take(b.id)}>Take</Button>}
            </Box>
          ))}
        </>
      )}
    </>
  )
}

interface GroupProps {
  title: string
  lines: { id: string; name: string; used?: string }[]
  data: Blocks
  choose: (id: string) => void
}

function Group({ title, lines, data, choose }: GroupProps) {
  if (!lines.length) return null
  return (
    <>
      <Heading>{title}</Heading>
      {lines.map((b) => (
        <Choice
          key={b.id}
          chosen={b.id === data.block.id}
          note={b.used ? `used by ${b.used}` : undefined}
          onClick={() => choose(b.id)}
        >
          {b.name}
        </Choice>
      ))}
    </>
  )
}

/** The title blocks as a sheet would have them. */
function useBlocks(shown: string, sheetId: string) {
  const { projectId } = usePick('projectId')
  return useBench<Blocks>(
    'title-blocks',
    () =>
      got(
        client.GET('/api/projects/{project_id}/title-blocks', {
          params: { path: { project_id: projectId }, query: { block: shown, sheet_id: sheetId } },
        }),
      ),
    [shown, sheetId],
  )
}

/** Keep a block in the library for other projects. */
async function keepBlock(projectId: string, block: Blocks['block']) {
  const { say } = useProject.getState()
  try {
    await got(
      client.POST('/api/projects/{project_id}/title-blocks/keep', {
        params: { path: { project_id: projectId } },
        body: { block_id: block.id },
      }),
    )
    say(`${block.name} is kept in the library for other projects.`)
  } catch (error) {
    say(wordsOf(error), 'error')
  }
}

interface BarProps {
  block: Blocks['block']
  sheetId: string
  setSheet: (id: string) => void
}

function Bar({ block, sheetId, setSheet }: BarProps) {
  const sheets = useSheetTable().data?.sheets ?? []
  return (
    <TableBar>
      <b>{block.name}</b>
      <Box sx={{ color: QUIET, fontSize: 12 }}>
        {block.width_mm} × {block.height_mm} mm
      </Box>
      <Box sx={{ flex: 1 }} />
      <Box sx={{ color: QUIET, fontSize: 12 }}>as on sheet</Box>
      <Select
        variant="standard"
        disableUnderline
        value={sheetId || (sheets[0]?.id ?? '')}
        inputProps={{ 'aria-label': 'As on sheet' }}
        onChange={(e) => setSheet(e.target.value)}
        sx={{ fontSize: 12.5, maxWidth: 220 }}
      >
        {sheets.map((s) => (
          <MenuItem key={s.id} value={s.id} sx={{ fontSize: 12.5 }}>
            {s.number} {s.title}
          </MenuItem>
        ))}
      </Select>
    </TableBar>
  )
}

interface HintProps {
  own: boolean
}

function Hint({ own }: HintProps) {
  return (
    <Box sx={{ px: 1.5, py: 0.75, fontSize: 12, color: QUIET, borderTop: `1px solid ${LINE}` }}>
      {own
        ? 'Drag a cell to move it, a corner to size it; it snaps to the millimetre and to its neighbours. Delete takes it out.'
        : 'This one is built in. Take it into the project to change it.'}
    </Box>
  )
}
