/** The units in which the open project shows lengths. */
import { INCHES, METRIC, type Lengths } from '../kit/lengths'
import { usePick } from './store'
import { useOutline } from './useOutline'

export function useLengths(): Lengths {
  const { projectId } = usePick('projectId')
  return useOutline(projectId).data?.settings.length_unit === 'in' ? INCHES : METRIC
}
