/** A device in the inspector: tag, text, part, units, what it is wired to, its snags. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import type { DeviceCard } from '../../api/shapes'
import type { Item } from '../../scene/item'
import { COPPER, MONO, QUIET, SNAG, TEAL } from '../../theme/theme'
import { Field } from '../../kit/Field'
import { PlaceChoice } from '../../project/PlaceChoice'
import { Section } from '../../kit/Section'
import { SnagActs } from '../../project/SnagActs'
import { TagChip } from '../../kit/TagChip'
import { AddOns } from '../../project/AddOns'
import { BelongsTo } from './BelongsTo'
import { BlockSection } from './BlockSection'
import { PartPicker } from '../../project/PartPicker'
import { usePick } from '../../project/store'
import { useTools } from './store'
import { SaidIn } from './SaidIn'
import { SymbolSection } from './SymbolSection'

interface Props {
  card: DeviceCard
  symbol: Item | undefined
  canEdit: boolean
  onGo: (id: string, sheet?: string) => void
}

const rowStyle = { display: 'flex', gap: 8, padding: '2px 0', fontSize: 12.5 } as const

export function DevicePanel(props: Props) {
  const { card, symbol, canEdit } = props
  const [picking, setPicking] = useState(false)
  const pick = setPicking
  return (
    <>
      <Named card={card} canEdit={canEdit} />
      <Section title="Part">
        <PartOf card={card} canEdit={canEdit} picking={picking} pick={pick} />
      </Section>
      {canEdit && symbol?.facts.definition?.startsWith('block:') && <BlockSection symbol={symbol} />}
      <Units {...props} />
      <WiredTo card={card} />
      <DeviceSnags card={card} canEdit={canEdit} pick={pick} />
      {symbol && canEdit && <SymbolSection symbol={symbol} />}
      {symbol && canEdit && <Belonging card={card} symbol={symbol} />}
    </>
  )
}

interface PartProps {
  card: DeviceCard
  canEdit: boolean
}

/** Tag, text and place of a device. */
function Named({ card, canEdit }: PartProps) {
  const { send } = usePick('send')
  const setTag = (tag: string) => send({ kind: 'set-tag', device_id: card.id, tag })
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1.25, alignItems: 'center', mb: 0.5 }}>
        <TagChip tag={card.tag} />
        <span>{card.what}</span>
      </Box>
      <Box sx={{ fontFamily: MONO, fontSize: 11.5, color: 'text.secondary', mb: 1 }}>{card.full_tag}</Box>
      <Field
        label="Text"
        value={card.text}
        disabled={!canEdit}
        placeholder="what it does"
        onSave={(text) => send({ kind: 'set-text', device_id: card.id, text })}
      />
      <SaidIn words={card.text} canEdit={canEdit} />
      <Field
        label={card.fixed ? 'Tag, fixed by hand' : 'Tag'}
        value={card.tag}
        mono
        disabled={!canEdit}
        onSave={setTag}
      />
      {card.fixed && canEdit && <Button onClick={() => setTag('')}>Let the tag run</Button>}
      <PlaceChoice
        deviceId={card.id}
        functionId={card.function_id}
        locationId={card.location_id}
        canEdit={canEdit}
      />
    </>
  )
}

interface PickingProps extends PartProps {
  picking: boolean
  pick: (on: boolean) => void
}

/** The part of a device, its ratings and what is added to it; or the choice of another one. */
function PartOf({ card, canEdit, picking, pick }: PickingProps) {
  const { part } = card
  return (
    <>
      {part ? (
        <Box sx={{ mb: 0.5 }}>
          <b style={{ fontFamily: MONO }}>{part.number}</b> <span style={{ color: QUIET }}>{part.maker}</span>
          <div style={{ fontSize: 12 }}>{part.text}</div>
        </Box>
      ) : (
        <Box sx={{ color: 'text.secondary', mb: 0.5 }}>none chosen yet</Box>
      )}
      <Stale card={card} canEdit={canEdit} />
      {picking ? (
        <PartPicker deviceId={card.id} partId={part?.id ?? ''} close={() => pick(false)} />
      ) : (
        <>
          {card.ratings.map((r) => (
            <div key={r.key} style={rowStyle}>
              <span style={{ color: QUIET, flex: 1 }}>{r.name}</span>
              <span>
                {r.value} {r.unit}
              </span>
            </div>
          ))}
          {part && <AddOns deviceId={card.id} canEdit={canEdit} />}
          {canEdit && (
            <Button variant="outlined" sx={{ mt: 0.5 }} onClick={() => pick(true)}>
              {part ? 'Change part' : 'Choose part'}
            </Button>
          )}
        </>
      )}
    </>
  )
}

/** What the library has changed since the part was copied. */
function Stale({ card, canEdit }: PartProps) {
  const { send } = usePick('send')
  if (!card.stale.length) return null
  const fields = card.stale.map((d) => d.field).join(', ')
  const refresh = () => void send({ kind: 'refresh-parts', part_ids: [card.part!.id] })
  return (
    <Box sx={{ fontSize: 12, color: COPPER, my: 0.5 }} title={fields}>
      stale: the library has another {fields}
      {canEdit && (
        <button type="button" style={{ ...linkStyle(COPPER), marginLeft: 6 }} onClick={refresh}>
          refresh
        </button>
      )}
    </Box>
  )
}

function Units({ card, symbol, canEdit, onGo }: Props) {
  return (
    <Section title="Units">
      {card.units.map((u, i) => (
        <div key={i} style={rowStyle}>
          <span style={{ fontFamily: MONO, flex: 1 }}>
            {u.kind} {u.pins}
          </span>
          {u.symbol_id ? (
            <Link
              here={u.symbol_id === symbol?.id}
              onClick={() => onGo(u.symbol_id, u.sheet_id)}
              text={u.place}
            />
          ) : (
            <FreeUnit device={card.id} definition={u.definition} canEdit={canEdit} />
          )}
        </div>
      ))}
    </Section>
  )
}

function WiredTo({ card }: { card: DeviceCard }) {
  if (!card.wired.length) return null
  return (
    <Section title="Wired to">
      {card.wired.map((w, i) => (
        <div key={i} style={{ ...rowStyle, fontFamily: MONO }}>
          <span style={{ minWidth: 30 }}>{w.pin}</span>
          <span style={{ color: TEAL, minWidth: 40 }}>{w.number}</span>
          <span style={{ flex: 1, textAlign: 'right' }}>{w.to}</span>
        </div>
      ))}
    </Section>
  )
}

function DeviceSnags({ card, canEdit, pick }: PartProps & { pick: (on: boolean) => void }) {
  const { send } = usePick('send')
  if (!card.snags.length) return null
  return (
    <Section title="Snags">
      {card.snags.map((s, i) => (
        <div key={i} style={{ ...rowStyle, color: SNAG }}>
          <span style={{ flex: 1 }}>{s.message}</span>
          {canEdit && <SnagActs act={s.act} mend={(edit) => void send(edit)} />}
          {s.mend === 'choose-part' && canEdit && (
            <button type="button" style={linkStyle(SNAG)} onClick={() => pick(true)}>
              choose
            </button>
          )}
        </div>
      ))}
    </Section>
  )
}

/** Giving a symbol to another device; asked at once when it has none that could have it. */
function Belonging({ card, symbol }: { card: DeviceCard; symbol: Item }) {
  const [moving, setMoving] = useState(false)
  const { sheetId } = usePick('sheetId')
  const orphan = card.snags.some((s) => s.mend === 'choose-device')
  if (orphan || moving) return <BelongsTo symbol={symbol} canEdit />
  return (
    <Button sx={{ mt: 1.5 }} onClick={() => setMoving(true)} data-sheet={sheetId}>
      Belongs to another device…
    </Button>
  )
}

/** A unit that is not drawn yet; a click puts it down at the caret. */
function FreeUnit({ device, definition, canEdit }: { device: string; definition: string; canEdit: boolean }) {
  const { caret, sheetId, send } = { ...usePick('sheetId', 'send'), ...useTools('caret') }
  if (!canEdit || !definition) return <span style={{ color: QUIET }}>{definition ? 'free' : 'spare'}</span>
  const place = () =>
    void send({
      kind: 'place-symbol',
      unit: 0,
      sheet_id: sheetId,
      definition,
      x: caret[0],
      y: caret[1],
      device_id: device,
      part_id: '',
      text: '',
      rotation: null,
      mirror: false,
      poles: 1,
      wire_type_id: '',
    })
  return (
    <button type="button" style={linkStyle(QUIET)} title="Put it down at the caret" onClick={place}>
      free · place
    </button>
  )
}

const linkStyle = (color: string) =>
  ({
    font: 'inherit',
    color,
    background: 'none',
    border: 0,
    padding: 0,
    textDecoration: 'underline',
    cursor: 'pointer',
  }) as const

function Link({ here, text, onClick }: { here: boolean; text: string; onClick: () => void }) {
  if (here) return <span style={{ color: COPPER, fontFamily: MONO }}>here · {text}</span>
  return (
    <button type="button" style={{ ...linkStyle(TEAL), fontFamily: MONO }} onClick={onClick}>
      {text}
    </button>
  )
}
