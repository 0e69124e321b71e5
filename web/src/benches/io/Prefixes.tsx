/** What addresses of inputs and outputs begin with: the project's own words for its controller and language. */
import Box from '@mui/material/Box'
import { makeEdit } from '../../api/client'
import { Field } from '../../kit/Field'
import { usePick } from '../../project/store'
import { useOutline } from '../../project/useOutline'

export function Prefixes({ projectId }: { projectId: string }) {
  const { send } = usePick('send')
  const settings = useOutline(projectId).data?.settings
  const typed = (label: string, key: 'input_prefix' | 'output_prefix') => (
    <Field
      label={label}
      mono
      value={settings?.[key] ?? ''}
      onSave={(value) => send(makeEdit('change-settings', { [key]: value.trim() }))}
    />
  )
  return (
    // Enter saves what is typed here; it does not send the form around it.
    <Box
      sx={{ display: 'flex', gap: 1 }}
      onKeyDown={(e: React.KeyboardEvent) => {
        if (e.key === 'Enter') e.preventDefault()
      }}
    >
      {typed('Inputs begin with', 'input_prefix')}
      {typed('Outputs begin with', 'output_prefix')}
    </Box>
  )
}
