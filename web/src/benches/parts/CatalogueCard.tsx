/** A part of the catalogue: its picture, what it is, and whether the library has it. */
import Box from '@mui/material/Box'
import { COPPER, LINE, MONO, QUIET, TEAL } from '../../theme/theme'

export interface Card {
  id: string
  maker: string
  number: string
  class_name: string
  text: string
  units: string
  said: [string, string][]
  price: string
  picture: boolean
  there: boolean
}

interface Props {
  card: Card
  chosen: boolean
  toggle: () => void
}

export function CatalogueCard({ card, chosen, toggle }: Props) {
  return (
    <Box role="listitem" sx={{ display: 'flex' }}>
      <Box
        component="button"
        type="button"
        aria-pressed={chosen}
        aria-label={`${card.maker} ${card.number}`}
        onClick={toggle}
        sx={{
          flex: 1,
          minWidth: 0,
          textAlign: 'left',
          font: 'inherit',
          color: 'inherit',
          bgcolor: '#fff',
          border: '1px solid',
          borderColor: chosen ? COPPER : LINE,
          boxShadow: chosen ? `inset 0 0 0 1px ${COPPER}` : undefined,
          borderRadius: 1,
          p: 1,
          cursor: 'pointer',
        }}
      >
        {card.picture && (
          <img
            src={`/api/library/catalogue/picture/${card.id}`}
            alt=""
            loading="lazy"
            width={120}
            height={90}
            style={{ display: 'block', margin: '0 auto' }}
          />
        )}
        <Box sx={{ fontFamily: MONO, fontWeight: 600, fontSize: 13 }}>{card.number}</Box>
        <Box sx={{ fontSize: 12, color: QUIET }}>
          {card.maker} · {card.class_name}
        </Box>
        <Box sx={{ fontSize: 12.5, my: 0.5 }}>{card.text}</Box>
        {card.said.map(([name, value]) => (
          <Box key={name} sx={{ fontSize: 11.5, display: 'flex', gap: 1 }}>
            <span style={{ color: QUIET, flex: 1 }}>{name}</span>
            <span>{value}</span>
          </Box>
        ))}
        <Box sx={{ display: 'flex', fontSize: 12, mt: 0.5 }}>
          <span style={{ flex: 1 }}>{card.price}</span>
          {card.there && <span style={{ color: TEAL }}>in the library</span>}
        </Box>
      </Box>
    </Box>
  )
}
