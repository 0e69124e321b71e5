/** The layers of the project: which are shown here, which are on papers, their names. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { makeEdit } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { LINE, QUIET } from '../../theme/theme'
import { Act, Acts } from '../../kit/Act'
import { counted } from '../../kit/counted'
import { Field } from '../../kit/Field'
import { usePick } from '../../project/store'
import { useTools } from './store'
import { showLayer, useHidden, useLayers } from './useLayers'

const USUAL = ['Existing', 'New', 'By others']
type LayerLine = Schemas['LayerLine']

export function LayersPanel({ canEdit }: { canEdit: boolean }) {
  const { send, set } = { ...usePick('send'), ...useTools('set') }
  const layers = useLayers().data ?? []
  const names = new Set(layers.map((l) => l.name))
  const add = async (wanted: string[]) => {
    for (const name of wanted) await send(makeEdit('add-layer', { name }))
  }
  const fresh = () => {
    let n = layers.length + 1
    while (names.has(`Layer ${n}`)) n++
    return `Layer ${n}`
  }
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5 }}>Layers</Box>
      <Box sx={{ fontSize: 12, color: QUIET, mb: 1 }}>
        A symbol, note or figure is put in a layer in the inspector. Wires follow what they end at.
      </Box>
      {layers.map((layer) => (
        <OneLayer key={layer.id} layer={layer} canEdit={canEdit} />
      ))}
      <Acts>
        {canEdit && <Act onClick={() => void add([fresh()])}>Add a layer</Act>}
        {canEdit && !layers.length && (
          <Act onClick={() => void add(USUAL)}>{`Add the usual: ${USUAL.join(', ')}`}</Act>
        )}
      </Acts>
      <Button size="small" onClick={() => set({ panel: '' })}>
        Done
      </Button>
    </>
  )
}

/** One layer: its name, whether this person sees it, whether it is on papers. */
function OneLayer({ layer, canEdit }: { layer: LayerLine; canEdit: boolean }) {
  const { projectId, send } = usePick('projectId', 'send')
  const hidden = useHidden()
  const change = (values: { name?: string; printed?: boolean }) =>
    send(makeEdit('change-layer', { layer_id: layer.id, ...values }))
  return (
    <Box role="group" aria-label={layer.name} sx={{ borderTop: `1px solid ${LINE}`, py: 0.5 }}>
      <Field label="Layer" value={layer.name} disabled={!canEdit} onSave={(name) => change({ name })} />
      <Ticked
        label="Shown to me"
        ticked={!hidden.has(layer.id)}
        tick={(shown) => showLayer(projectId, layer.id, shown)}
      />
      <Ticked
        label="On papers"
        ticked={layer.printed}
        disabled={!canEdit}
        tick={(printed) => change({ printed })}
      />
      <Box sx={{ display: 'flex', alignItems: 'center', fontSize: 12, color: QUIET }}>
        <span style={{ flex: 1 }}>{layer.used ? `${counted(layer.used, 'thing')} in it` : 'empty'}</span>
        {canEdit && (
          <Act onClick={() => void send(makeEdit('remove-layer', { layer_id: layer.id }))}>Take away</Act>
        )}
      </Box>
    </Box>
  )
}

interface TickedProps {
  label: string
  ticked: boolean
  disabled?: boolean
  tick: (on: boolean) => void
}

const Ticked = ({ label, ticked, disabled, tick }: TickedProps) => (
  <FormControlLabel
    control={
      <Checkbox
        size="small"
        checked={ticked}
        disabled={disabled ?? false}
        onChange={(e) => tick(e.target.checked)}
      />
    }
    label={label}
    slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
  />
)
