/** The symbol of a device in the inspector: poles, what it is drawn as, which texts show, lock. */
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useQuery } from '@tanstack/react-query'
import { client, got } from '../../api/client'
import type { Item } from '../../scene/item'
import { Act, Acts } from '../../kit/Act'
import { Section } from '../../kit/Section'
import { usePick } from '../../project/store'
import { lockSelected } from './acts'

const TEXTS = [
  ['tag', 'Tag'],
  ['text', 'Text'],
  ['reference', 'Reference'],
  ['pin', 'Pins'],
] as const

export function SymbolSection({ symbol }: { symbol: Item }) {
  const { send, selection } = usePick('send', 'selection')
  const all = useQuery({
    queryKey: ['symbols'],
    queryFn: () => got(client.GET('/api/library/symbols', { params: { query: { q: '' } } })),
    staleTime: Infinity,
  })
  const { definition = '', poles = [1, 1], texts = {}, locked } = symbol.facts
  const own = all.data?.find((s) => s.key === definition)
  const like = (all.data ?? []).filter(
    (s) => s.max_poles === poles[1] && (own === undefined || s.leads === own.leads),
  )
  return (
    <Section title="Symbol">
      {poles[1] > 1 && (
        <Acts>
          <span style={{ fontSize: 12.5, alignSelf: 'center' }}>
            {poles[0]} {poles[0] === 1 ? 'pole' : 'poles'}
          </span>
          <Act
            hint="One pole less"
            disabled={poles[0] < 2}
            onClick={() => void send({ kind: 'set-poles', symbol_id: symbol.id, poles: poles[0] - 1 })}
          >
            − pole
          </Act>
          <Act
            hint="One pole more, on the wire beside"
            disabled={poles[0] >= poles[1]}
            onClick={() => void send({ kind: 'set-poles', symbol_id: symbol.id, poles: poles[0] + 1 })}
          >
            + pole
          </Act>
          <Act
            hint="Each pole a symbol of its own, of the same device"
            disabled={poles[0] < 2}
            onClick={() => void send({ kind: 'split-poles', symbol_id: symbol.id })}
          >
            Draw apart
          </Act>
        </Acts>
      )}
      {definition && !definition.startsWith('block:') && (
        <TextField
          select
          fullWidth
          margin="dense"
          label="Drawn as"
          value={definition}
          onChange={(e) =>
            void send({ kind: 'swap-symbol', symbol_id: symbol.id, definition: e.target.value })
          }
        >
          {!own && <MenuItem value={definition}>a drawing of its own</MenuItem>}
          {like.map((s) => (
            <MenuItem key={s.key} value={s.key}>
              {s.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Acts>
        {TEXTS.map(([name, words]) => (
          <Act
            key={name}
            hint={
              texts[name] === 'off' ? `Show the ${words.toLowerCase()}` : `Hide the ${words.toLowerCase()}`
            }
            onClick={() =>
              void send({
                kind: 'show-texts',
                ids: [symbol.id],
                texts: [name],
                shown: texts[name] === 'off',
              })
            }
          >
            <span style={{ textDecoration: texts[name] === 'off' ? 'line-through' : undefined }}>
              {words}
            </span>
          </Act>
        ))}
        {Object.values(texts).some((t) => t !== 'off') && (
          <Act
            hint="Texts that were dragged go back to their own places"
            onClick={() =>
              void send({
                kind: 'show-texts',
                ids: [symbol.id],
                texts: TEXTS.map(([name]) => name).filter((name) => texts[name] && texts[name] !== 'off'),
                shown: true,
              })
            }
          >
            Texts back
          </Act>
        )}
        {selection.has(symbol.id) && <Act onClick={lockSelected}>{locked ? 'Unlock' : 'Lock'}</Act>}
      </Acts>
    </Section>
  )
}
