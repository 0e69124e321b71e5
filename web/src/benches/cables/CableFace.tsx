/** A cable with both of its ends: a core dragged onto another one takes its wire. */
import { useRef, useState } from 'react'
import { makeEdit } from '../../api/client'
import { Drawing, type SceneValue } from '../../kit/Drawing'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import type { At } from '../../scene/Surface'
import { MONO, QUIET } from '../../theme/theme'
import type { Cable } from './shapes'

interface Props {
  cable: Cable
  scene: SceneValue
  canEdit: boolean
  chosen: Set<string>
  choose: (keys: Set<string>) => void
}

const WHOLE_MM = 190
const PAIRS = ['', '; pairs go together, with Alt one core']

/** The core under the pointer, "" for none. */
function coreUnder(at: At): string {
  const id = at.target?.closest('[data-kind=core]')?.getAttribute('data-id') ?? ''
  return id.startsWith('core:') ? id : ''
}

export function CableFace({ cable, scene, canEdit, chosen, choose }: Props) {
  const { send } = usePick('send')
  const [over, setOver] = useState('')
  const from = useRef('')
  const down = (at: At) => {
    from.current = coreUnder(at)
    choose(new Set(from.current ? [from.current] : []))
  }
  const move = (at: At) => {
    const here = from.current ? coreUnder(at) : ''
    if (here !== over) setOver(here === from.current ? '' : here)
  }
  const up = (at: At) => {
    const [a, b] = [from.current, coreUnder(at)]
    from.current = ''
    setOver('')
    if (!canEdit || !a || !b || a === b) return
    const [first, second] = [a, b].map((key) => Number(key.slice(5))) as [number, number]
    void send(makeEdit('swap-cores', { device_id: cable.id, first, second, single: at.event.altKey }))
    choose(new Set([b]))
  }
  const beside = Math.max(0, (WHOLE_MM - scene.width) / 2)
  const pairs = cable.cores.some((c) => c.pair)
  const ends = [cable.source, cable.destination].filter(Boolean).join(' to ')
  return (
    <>
      <TableBar>
        <b style={{ fontFamily: MONO, whiteSpace: 'nowrap' }}>{cable.tag}</b>
        <span
          style={{
            color: QUIET,
            fontSize: 12.5,
            whiteSpace: 'nowrap',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
          }}
        >
          {ends}
          {canEdit && cable.used > 0 && ` · drag a core onto another to exchange them${PAIRS[pairs ? 1 : 0]}`}
        </span>
      </TableBar>
      <Drawing
        scene={scene}
        name={cable.id}
        fit={[-beside, 0, scene.width + beside, Math.min(scene.height, scene.width / 2)]}
        selected={chosen}
        linked={new Set(over ? [over] : [])}
        onDown={down}
        onMove={move}
        onUp={up}
      />
    </>
  )
}
