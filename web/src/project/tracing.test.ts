import { expect, test, vi } from 'vitest'
import { useProject } from './store'
import { traceAddress, traceCommand } from './tracing'

test('the trace of what is drawn opens on its sheet, with it chosen', () => {
  expect(traceAddress('kiln', { sheet_id: 's', id: 'w' })).toBe('/p/kiln/draw/s?sel=w&panel=trace')
  const go = vi.fn()
  useProject.setState({ projectId: 'kiln' })
  const command = traceCommand({ sheet_id: 's', id: 'w' }, go)
  expect(command.enabled?.()).toBe(true)
  command.run()
  expect(go).toHaveBeenCalledWith('/p/kiln/draw/s?sel=w&panel=trace')
})

test('what is drawn nowhere has none', () => {
  for (const chosen of [undefined, { sheet_id: '', id: 'w' }, { sheet_id: 's', id: '' }])
    expect(traceCommand(chosen, vi.fn()).enabled?.()).toBe(false)
})
