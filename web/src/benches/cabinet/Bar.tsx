/** The bar above the plan: which side is seen, what is drawn, what the tool in hand waits for. */
import { held } from '../../kit/held'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Popover from '@mui/material/Popover'
import Stack from '@mui/material/Stack'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useRef } from 'react'
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
  minHeight: 48,
  flexWrap: 'wrap',
  rowGap: 0.5,
  position: 'relative',
  borderBottom: `1px solid ${LINE}`,
  bgcolor: '#FBF8F1',
} as const

// Over the upper edge of the plan: what is drawn does not move when a tool is taken.
const SAID = {
  position: 'absolute',
  top: '100%',
  left: 0,
  right: 0,
  zIndex: 1,
  px: 1.5,
  py: 0.25,
  fontSize: 12,
  color: QUIET,
  bgcolor: 'rgba(251, 248, 241, 0.92)',
  pointerEvents: 'none',
  m: '0 !important',
} as const

const SLIM = { minWidth: 0, px: 1, whiteSpace: 'nowrap', flexShrink: 0 } as const

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
          <Runs state={state} />
          <Tool name="lane" label="Lane" state={state} />
          <Tool name="through" label="Through" state={state} />
          <Tool name="crossing" label="Crossing" state={state} />
          <Button sx={SLIM} onClick={() => propose(state)}>
            Lay out for me
          </Button>
        </>
      )}
      {words(state) && <Box sx={SAID}>{words(state)}</Box>}
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
    <Button
      sx={SLIM}
      variant={held(state.tool, name) ? 'contained' : 'outlined'}
      onClick={() => state.take({ name })}
    >
      {label}
    </Button>
  )
}

/** Rails and ducts: of what part they are drawn next, and drawing them. */
function Runs({ state }: { state: State }) {
  const { tool, pickingRuns: open, setPickingRuns } = state
  const anchor = useRef<HTMLButtonElement>(null)
  return (
    <>
      <Button
        ref={anchor}
        aria-haspopup="dialog"
        variant={held(tool, 'rail') || held(tool, 'duct') ? 'contained' : 'outlined'}
        sx={SLIM}
        onClick={() => setPickingRuns(true)}
      >
        Rail or duct ▾
      </Button>
      <Popover
        open={open}
        anchorEl={() => anchor.current}
        onClose={() => setPickingRuns(false)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <Box role="group" aria-label="Rail or duct" sx={{ p: 1.5, width: 300 }}>
          <Run what="rail" state={state} />
          <Run what="duct" state={state} />
        </Box>
      </Popover>
    </>
  )
}

function Run({ what, state }: { what: 'rail' | 'duct'; state: State }) {
  const { parts, setParts, setTool, draw, setPickingRuns } = state
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
      <Box sx={{ flex: 1 }}>
        <PartChoice
          label={what === 'rail' ? 'Rail' : 'Duct'}
          partClass={what}
          value={parts[what]}
          onChoose={(p) => {
            setParts({ ...parts, [what]: p.id })
            setTool({ name: what, part: p.id })
            setPickingRuns(false)
          }}
        />
      </Box>
      {parts[what] && (
        <Button
          variant="outlined"
          sx={{ whiteSpace: 'nowrap' }}
          onClick={() => {
            draw(what)
            setPickingRuns(false)
          }}
        >
          {`Draw ${what}s`}
        </Button>
      )}
    </Stack>
  )
}
