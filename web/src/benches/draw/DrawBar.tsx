/** The bar above the sheet: wire type, tools, where the caret is. */
import { held } from '../../kit/held'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import Stack from '@mui/material/Stack'
import Tooltip from '@mui/material/Tooltip'
import { memo, useEffect } from 'react'
import type { BusLine, WireTypeLine } from '../../api/shapes'
import { LINE, MONO } from '../../theme/theme'
import { wirePaint } from '../../theme/paints'
import { BusTypes } from './BusTypes'
import { MoreTools } from './MoreTools'
import { useProject } from '../../project/store'
import { languageName } from '../../project/useWordings'
import { useDraw, useTools } from './store'
import { StrokeTarget } from './StrokeTarget'
import { startBus, startQuick, startStroke, startWire } from './tools'

interface Props {
  types: WireTypeLine[]
  buses: BusLine[]
  languages: readonly string[]
  canEdit: boolean
}

export const DrawBar = memo(function DrawBar({ types, buses, languages, canEdit }: Props) {
  const { wireType, set } = useTools('wireType', 'set')
  const name = useDraw((s) => s.tool.name)
  const busArmed = useDraw((s) => held(s.tool, 'wire')?.bus ?? false)
  const stroke = useDraw((s) => held(s.tool, 'stroke')?.what ?? '')
  useEffect(() => {
    if (!types.some((t) => t.id === wireType) && types[0]) set({ wireType: types[0].id })
  })
  useEffect(() => set({ usualBus: buses[0]?.types ?? [] }), [buses, set])
  return (
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
      {!busArmed && <NextType types={types} />}
      {!stroke && (
        <>
          {!busArmed && (
            <ToolButton
              label="Wire"
              hint="W"
              active={name === 'wire'}
              disabled={!canEdit}
              onClick={startWire}
            />
          )}
          <ToolButton label="Bus" hint="B" active={busArmed} disabled={!canEdit} onClick={startBus} />
        </>
      )}
      {busArmed ? (
        <BusTypes types={types} buses={buses} />
      ) : (
        <>
          <Strokes stroke={stroke} quick={name === 'quick'} disabled={!canEdit} />
        </>
      )}
      {stroke && <StrokeTarget what={stroke} />}
      {!stroke && !busArmed && <MoreTools canEdit={canEdit} />}
      <Box sx={{ flex: 1 }} />
      <ShownIn languages={languages} />
      <CaretPlace />
    </Stack>
  )
})

/** The language that sheets are shown in, where the project has others than its own. */
function ShownIn({ languages }: { languages: readonly string[] }) {
  const { language, set } = useTools('language', 'set')
  const known = language === '' || languages.includes(language)
  useEffect(() => {
    if (!known) set({ language: '' })
  }, [known, set])
  if (!languages.length) return null
  return (
    <Select
      size="small"
      variant="standard"
      value={known ? language : ''}
      displayEmpty
      inputProps={{ 'aria-label': 'Shown in' }}
      onChange={(e) => set({ language: e.target.value })}
      sx={{ fontSize: 12, mr: 1 }}
    >
      <MenuItem value="">own language</MenuItem>
      {languages.map((code) => (
        <MenuItem key={code} value={code}>
          {languageName(code)}
        </MenuItem>
      ))}
    </Select>
  )
}

/** Where the caret is, in words; which line a height counts to is the server's to say. */
function CaretPlace() {
  const caret = useDraw((s) => s.caret)
  const lines = useProject((s) => s.view.sheet.sheet?.lines)
  const at = `${caret[0]}, ${caret[1]}`
  const line = lines?.filter(([, , y, x]) => y <= caret[1] && x <= caret[0]).at(-1)
  return (
    <Box
      sx={{ fontSize: 12, color: 'text.secondary', fontFamily: MONO, whiteSpace: 'nowrap' }}
      data-testid="place"
    >
      {line ? `line ${line[0]} · ${at}` : at}
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

interface NextTypeProps {
  types: WireTypeLine[]
}

function NextType({ types }: NextTypeProps) {
  const { wireType, set } = useTools('wireType', 'set')
  return (
    <Tooltip title="Wire type for what is drawn next">
      <Select
        size="small"
        variant="standard"
        disableUnderline
        value={types.some((t) => t.id === wireType) ? wireType : ''}
        onChange={(e) => set({ wireType: e.target.value })}
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
  )
}

interface StrokesProps {
  stroke: string
  quick: boolean
  disabled: boolean
}

function Strokes({ stroke, quick, disabled }: StrokesProps) {
  return (
    <>
      {!stroke && (
        <ToolButton label="Quick line" hint="/" active={quick} disabled={disabled} onClick={startQuick} />
      )}
      <ToolButton
        label="Terminals"
        hint="Shift+T"
        active={stroke === 'terminals'}
        disabled={disabled}
        onClick={() => startStroke('terminals')}
      />
      <ToolButton
        label="Cable band"
        hint="Shift+C"
        active={stroke === 'band'}
        disabled={disabled}
        onClick={() => startStroke('band')}
      />
    </>
  )
}
