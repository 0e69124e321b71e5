/** The bar above the plan: which side is seen, what is drawn, what the tool in hand waits for. */
import { held } from '../../kit/held'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Stack from '@mui/material/Stack'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { PartChoice } from '../../project/PartChoice'
import { LINE, QUIET } from '../../theme/theme'
import type { EnclosureValue, Look } from './shapes'
import { momentsOf } from './planTools'
import { CHOOSE } from './planTool'
import type { State } from './useCabinet'

const BAR = {
  px: 1.5,
  py: 0.5,
  alignItems: 'center',
  flexWrap: 'wrap',
  rowGap: 0.5,
  borderBottom: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
} as const

const SHORT: Record<string, string> = {
  plate: 'Plate',
  door: 'Door',
  left: 'Left wall',
  right: 'Right wall',
  roof: 'Roof',
  gland: 'Gland plate',
}

interface Props {
  state: State
  enclosure: EnclosureValue
  canEdit: boolean
}

export function Bar({ state, enclosure, canEdit }: Props) {
  const { look } = state
  const show = (next: Look | null) => {
    if (next) state.setLook(next)
    if (!momentsOf(state.tool).stays) state.setTool(CHOOSE)
  }
  const walls = enclosure.surfaces ?? []
  return (
    <Stack direction="row" spacing={1} sx={BAR}>
      <ToggleButtonGroup size="small" exclusive value={look} onChange={(_, v: Look | null) => show(v)}>
        {walls.flatMap((s) => [
          <ToggleButton key={s.name} value={s.name}>
            {SHORT[s.name]}
          </ToggleButton>,
          ...(s.name === 'door'
            ? [
                <ToggleButton key="back" value="door-back">
                  Back
                </ToggleButton>,
              ]
            : []),
        ])}
        <ToggleButton value="space">Space</ToggleButton>
      </ToggleButtonGroup>
      {canEdit && look !== 'space' && look !== 'door-back' && (
        <>
          <Runs what="rail" state={state} />
          <Runs what="duct" state={state} />
          <Tool name="lane" label="Lane" state={state} />
          <Tool name="through" label="Through" state={state} />
          <Tool name="crossing" label="Crossing" state={state} />
          <Button sx={{ minWidth: 0, px: 1 }} onClick={() => propose(state)}>
            Lay out for me
          </Button>
        </>
      )}
      <Box sx={{ flex: 1, minWidth: 120, fontSize: 12, color: QUIET }}>{words(state)}</Box>
    </Stack>
  )
}

/** Ask for a proposal; no tool is in hand while one looks at it. */
function propose(state: State) {
  state.setTool(CHOOSE)
  state.setProposing(true)
}

/** What the tool in hand waits for. */
const words = (state: State) => (state.look === 'space' ? '' : momentsOf(state.tool).words(state, state.tool))

interface ToolProps {
  name: 'lane' | 'through' | 'crossing'
  label: string
  state: State
}

function Tool({ name, label, state }: ToolProps) {
  return (
    <Button variant={held(state.tool, name) ? 'contained' : 'outlined'} onClick={() => state.take({ name })}>
      {label}
    </Button>
  )
}

/** The part of the rails or ducts that are drawn next, and drawing them. */
function Runs({ what, state }: { what: 'rail' | 'duct'; state: State }) {
  const { parts, setParts, tool, setTool, draw } = state
  return (
    <Stack direction="row" spacing={0.5} sx={{ alignItems: 'center' }}>
      <Box sx={{ width: 92 }}>
        <PartChoice
          label={what === 'rail' ? 'Rail' : 'Duct'}
          partClass={what}
          value={parts[what]}
          onChoose={(p) => {
            setParts({ ...parts, [what]: p.id })
            setTool({ name: what, part: p.id })
          }}
        />
      </Box>
      <Button
        variant={held(tool, what) ? 'contained' : 'outlined'}
        disabled={!parts[what]}
        aria-label={`Draw ${what}s`}
        sx={{ minWidth: 0, px: 1 }}
        onClick={() => draw(what)}
      >
        {what === 'rail' ? 'Rails' : 'Ducts'}
      </Button>
    </Stack>
  )
}
