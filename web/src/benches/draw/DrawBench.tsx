/** The Draw bench: sheets on the left, the sheet in the middle, inspector right, ledger below. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Stack from '@mui/material/Stack'
import Tooltip from '@mui/material/Tooltip'
import { useEffect } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { client, got, wordsOf, type Outline } from '../../api/client'
import type { PageLine, SheetLine, WireTypeLine } from '../../api/shapes'
import { LINE, MONO } from '../../app/theme'
import { wirePaint } from '../../scene/colours'
import { BusTypes } from './BusTypes'
import { leadsTo } from './jump'
import { MoreTools } from './MoreTools'
import { Inspector } from './Inspector'
import { Ledger } from './Ledger'
import { Sheet } from './Sheet'
import { SheetList } from './SheetList'
import { useSheet } from './store'
import { StrokeTarget } from './StrokeTarget'
import { startBus, startStroke, startWire } from './tools'
import { useKeys } from './useKeys'

export function DrawBench({ outline }: { outline: Outline }) {
  const { projectId = '', sheetId = '' } = useParams()
  const [search] = useSearchParams()
  const go = useNavigate()
  const s = useSheet()
  // A generated page is made from the model: it is looked at, not drawn on.
  const made = s.view.sheet.sheet?.made ?? false
  const canEdit = outline.role !== 'viewer' && outline.state === 'open' && !made && s.loaded
  useKeys(canEdit)
  const sheets = outline.sheets as unknown as SheetLine[]
  const types = outline.wire_types as unknown as WireTypeLine[]
  const wanted = search.get('sel')
  const busArmed = s.tool.name === 'wire' && s.tool.bus

  useEffect(() => {
    if (sheetId) void useSheet.getState().open(projectId, sheetId)
  }, [projectId, sheetId])
  useEffect(() => {
    if (!types.some((t) => t.id === s.wireType) && types[0]) s.set({ wireType: types[0].id })
  })
  useEffect(() => {
    if (wanted && s.loaded) useSheet.getState().select([wanted])
  }, [wanted, s.loaded])

  /** Go to an entity, on this sheet or another. */
  const goTo = (id: string, sheet = '') => {
    const target = sheet || (s.view.items[id] ? sheetId : '')
    if (target && target === sheetId) s.select([id])
    else if (target) void go(`/p/${projectId}/draw/${target}?sel=${id}`)
    else if (id) {
      const params = { path: { project_id: projectId, entity_id: id } }
      void got(client.GET('/api/projects/{project_id}/where/{entity_id}', { params })).then(
        (found) => go(`/p/${projectId}/draw/${found.sheet_id}?sel=${id}`),
        (error) => s.say(wordsOf(error), 'error'),
      )
    }
  }
  useEffect(() => leadsTo(goTo))
  return (
    <Box sx={{ display: 'flex', flex: 1, minWidth: 0, minHeight: 0 }}>
      <SheetList
        projectId={projectId}
        pages={outline.pages as unknown as PageLine[]}
        sheets={sheets}
        current={sheetId}
        canEdit={outline.role !== 'viewer' && outline.state === 'open'}
      />
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
        <Stack
          direction="row"
          spacing={0.5}
          sx={{
            height: 38,
            px: 1.5,
            alignItems: 'center',
            borderBottom: `1px solid ${LINE}`,
            bgcolor: '#FBF8F1',
          }}
        >
          {!busArmed && (
            <Tooltip title="Wire type for what is drawn next">
              <Select
                size="small"
                variant="standard"
                disableUnderline
                value={types.some((t) => t.id === s.wireType) ? s.wireType : ''}
                onChange={(e) => s.set({ wireType: e.target.value })}
                inputProps={{ 'aria-label': 'Wire type' }}
                sx={{ fontSize: 13, minWidth: 130, maxWidth: 150 }}
              >
                {types.map((t) => (
                  <MenuItem key={t.id} value={t.id} sx={{ fontSize: 13 }}>
                    <Swatch code={t.colour} />
                    {t.name} {t.cross_section_mm2 || t.awg} {t.colour}
                  </MenuItem>
                ))}
              </Select>
            </Tooltip>
          )}
          {s.tool.name !== 'stroke' && (
            <>
              {!busArmed && (
                <ToolButton
                  label="Wire"
                  hint="W"
                  active={s.tool.name === 'wire'}
                  disabled={!canEdit}
                  onClick={startWire}
                />
              )}
              <ToolButton label="Bus" hint="B" active={busArmed} disabled={!canEdit} onClick={startBus} />
            </>
          )}
          {busArmed ? (
            <BusTypes types={types} />
          ) : (
            <>
              {s.tool.name !== 'stroke' && (
                <ToolButton
                  label="Quick line"
                  hint="/"
                  active={s.tool.name === 'quick'}
                  disabled={!canEdit}
                  onClick={() => s.set({ tool: { name: 'quick' } })}
                />
              )}
              <ToolButton
                label="Terminals"
                hint="Shift+T"
                active={s.tool.name === 'stroke' && s.tool.what === 'terminals'}
                disabled={!canEdit}
                onClick={() => startStroke('terminals')}
              />
              <ToolButton
                label="Cable band"
                hint="Shift+C"
                active={s.tool.name === 'stroke' && s.tool.what === 'band'}
                disabled={!canEdit}
                onClick={() => startStroke('band')}
              />
            </>
          )}
          {s.tool.name === 'stroke' && <StrokeTarget what={s.tool.what} />}
          {s.tool.name !== 'stroke' && !busArmed && <MoreTools canEdit={canEdit} />}
          <Box sx={{ flex: 1 }} />
          <Box
            sx={{ fontSize: 12, color: 'text.secondary', fontFamily: MONO, whiteSpace: 'nowrap' }}
            data-testid="place"
          >
            {placeOf(s.caret, s.view.sheet.sheet)}
          </Box>
        </Stack>
        <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#EAE4D6' }}>
          <Sheet canEdit={canEdit} onGo={goTo} />
        </Box>
        {!made && <Ledger onGo={goTo} />}
      </Box>
      <Inspector outline={outline} canEdit={canEdit} onGo={goTo} />
    </Box>
  )
}

function Swatch({ code }: { code: string }) {
  const paint = wirePaint(code)
  return (
    <span
      style={{
        display: 'inline-block',
        width: 16,
        height: 5,
        borderRadius: 2,
        marginRight: 7,
        verticalAlign: 'middle',
        border: paint.edged ? '1px solid #14213D' : undefined,
        background: paint.second
          ? `linear-gradient(90deg, ${paint.first} 50%, ${paint.second} 50%)`
          : paint.first,
      }}
    />
  )
}

interface ToolButtonProps {
  label: string
  hint: string
  active: boolean
  disabled: boolean
  onClick: () => void
}

function ToolButton({ label, hint, active, disabled, onClick }: ToolButtonProps) {
  return (
    <Button
      variant={active ? 'contained' : 'text'}
      color={active ? 'primary' : 'inherit'}
      disabled={disabled}
      onClick={onClick}
      sx={{
        py: 0.1,
        px: 0.5,
        minWidth: 0,
        flexShrink: 0,
        whiteSpace: 'nowrap',
        '& .MuiButton-endIcon': { ml: 0.5 },
      }}
      title={hint}
      endIcon={
        hint.length < 3 && (
          <kbd
            style={{ font: `11px ${MONO}`, border: `1px solid ${LINE}`, borderRadius: 3, padding: '0 3px' }}
          >
            {hint}
          </kbd>
        )
      }
    >
      {label}
    </Button>
  )
}

/** Where the caret is, in words; which line a height counts to is the server's to say. */
function placeOf(
  caret: [number, number],
  facts: { lines: [number, number, number, number][] } | undefined,
): string {
  const at = `${caret[0]}, ${caret[1]}`
  const line = facts?.lines.filter(([, , y, x]) => y <= caret[1] && x <= caret[0]).at(-1)
  return line ? `line ${line[0]} · ${at}` : at
}
