/** The languages of the project, and its texts in them. */
import { client, got } from '../api/client'
import { useProject } from './store'
import { useBench } from './useBench'

export function useWordings() {
  const projectId = useProject((s) => s.projectId)
  return useBench('wordings', () =>
    got(client.GET('/api/projects/{project_id}/wordings', { params: { path: { project_id: projectId } } })),
  )
}

const NAMES = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' })

/** The name of a language by its code; the code itself where it is none. */
export function languageName(code: string): string {
  try {
    return NAMES.of(code) ?? code
  } catch {
    return code
  }
}
