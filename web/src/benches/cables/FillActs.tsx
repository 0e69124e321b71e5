/** Filling the cores of cables anew in an order. */
import { Act, Acts } from '../../kit/Act'
import { usePick } from '../../project/store'

interface Props {
  ids: string[]
  /** How the way back to the part's own order is called; without it there is none. */
  back: string
}

export function FillActs({ ids, back }: Props) {
  const { send } = usePick('send')
  const fill = (by: 'list' | 'number' | 'source') => void send({ kind: 'fill-cores', device_ids: ids, by })
  return (
    <Acts>
      <Act onClick={() => fill('number')} hint="In the order of the wire numbers">
        Fill by wire number
      </Act>
      <Act onClick={() => fill('source')} hint="In the order of the pins at the source">
        Fill by source
      </Act>
      {back && (
        <Act onClick={() => fill('list')} hint="In the order of the part's cores">
          {back}
        </Act>
      )}
    </Acts>
  )
}
