/** The symbol of a device in the inspector: poles, what it is drawn as, which texts show, lock. */
import { useQuery } from '@tanstack/react-query'
import { client, got, makeEdit, type Edit } from '../../api/client'
import type { Item } from '../../scene/item'
import { Act, Acts } from '../../kit/Act'
import { PanelPick } from '../../kit/Pick'
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
  const shapes = (all.data ?? [])
    .filter((s) => s.max_poles === poles[1] && (own === undefined || s.leads === own.leads))
    .map((s) => ({ id: s.key, name: s.name }))
  return (
    <Section title="Symbol">
      {poles[1] > 1 && <Poles id={symbol.id} poles={poles} />}
      {definition && !definition.startsWith('block:') && (
        <PanelPick
          label="Drawn as"
          value={definition}
          options={own ? shapes : [{ id: definition, name: 'a drawing of its own' }, ...shapes]}
          onPick={(to) => void send({ kind: 'swap-symbol', symbol_id: symbol.id, definition: to })}
        />
      )}
      <Acts>
        <Texts id={symbol.id} texts={texts} />
        {selection.has(symbol.id) && <Act onClick={lockSelected}>{locked ? 'Unlock' : 'Lock'}</Act>}
      </Acts>
    </Section>
  )
}

interface PolesProps {
  id: string
  poles: [number, number]
}

function Poles({ id, poles }: PolesProps) {
  const { send } = usePick('send')
  const put = (count: number) => send({ kind: 'set-poles', symbol_id: id, poles: count })
  return (
    <Acts>
      <span style={{ fontSize: 12.5, alignSelf: 'center' }}>
        {poles[0]} {poles[0] === 1 ? 'pole' : 'poles'}
      </span>
      <Act hint="One pole less" disabled={poles[0] < 2} onClick={() => put(poles[0] - 1)}>
        − pole
      </Act>
      <Act
        hint="One pole more, on the wire beside"
        disabled={poles[0] >= poles[1]}
        onClick={() => put(poles[0] + 1)}
      >
        + pole
      </Act>
      <Act
        hint="Each pole a symbol of its own, of the same device"
        disabled={poles[0] < 2}
        onClick={() => void send({ kind: 'split-poles', symbol_id: id })}
      >
        Draw apart
      </Act>
    </Acts>
  )
}

interface TextsProps {
  id: string
  texts: Record<string, string>
}

function Texts({ id, texts }: TextsProps) {
  const { send } = usePick('send')
  const show = (names: Edit<'show-texts'>['texts'], shown: boolean) =>
    void send(makeEdit('show-texts', { ids: [id], texts: names, shown }))
  const moved = TEXTS.map(([name]) => name).filter((name) => texts[name] && texts[name] !== 'off')
  return (
    <>
      {TEXTS.map(([name, words]) => (
        <Act
          key={name}
          hint={texts[name] === 'off' ? `Show the ${words.toLowerCase()}` : `Hide the ${words.toLowerCase()}`}
          onClick={() => show([name], texts[name] === 'off')}
        >
          <span style={{ textDecoration: texts[name] === 'off' ? 'line-through' : undefined }}>{words}</span>
        </Act>
      ))}
      {Object.values(texts).some((t) => t !== 'off') && (
        <Act hint="Texts that were dragged go back to their own places" onClick={() => show(moved, true)}>
          Texts back
        </Act>
      )}
    </>
  )
}
