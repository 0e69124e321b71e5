/** Jumping between the places of what is selected: a device's symbols, continuations of one name. */
import { client, got, wordsOf } from '../../api/client'
import { now } from './store'

/** Set by the bench: how to go to an entity on a sheet. */
let go: (id: string, sheet: string) => void = () => undefined
export const leadsTo = (way: typeof go) => {
  go = way
}

export async function jump(by: 1 | -1) {
  const s = now()
  const id = [...s.selection].find((i) =>
    ['symbol', 'continuation', 'wire'].includes(s.view.items[i]?.kind ?? ''),
  )
  if (!id) return
  try {
    const places = await got(
      client.GET('/api/projects/{project_id}/places/{entity_id}', {
        params: { path: { project_id: s.projectId, entity_id: id } },
      }),
    )
    if (places.length < 2) return s.say('It is drawn nowhere else.')
    const here = places.findIndex((p) => p['id'] === id)
    const next = places[(here + by + places.length) % places.length]!
    go(next['id']!, next['sheet_id']!)
    s.say(`${places.indexOf(next) + 1} of ${places.length}: ${next['place']}`)
  } catch (error) {
    s.say(wordsOf(error), 'error')
  }
}
