/** The heading of a Grid: sorting by a click, choosing columns, choosing all rows. */
import ArrowDropDownIcon from '@mui/icons-material/ArrowDropDown'
import ArrowDropUpIcon from '@mui/icons-material/ArrowDropUp'
import ViewColumnOutlinedIcon from '@mui/icons-material/ViewColumnOutlined'
import Box from '@mui/material/Box'
import Checkbox from '@mui/material/Checkbox'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useState } from 'react'
import { LINE, QUIET } from '../theme/theme'
import type { Column } from './gridData'
import { remember } from './remember'

export const HEAD_PX = 30
export type Sort = { key: string; down: boolean } | null

interface Props<T> {
  name: string
  all: Column<T>[]
  shown: Column<T>[]
  hidden: string[]
  wide: number
  sort: Sort
  onSort: (sort: Sort) => void
  onHide: (hidden: string[]) => void
  checked: boolean
  some: boolean
  onCheck: () => void
}

/** A first click sorts up, a second down, a third not at all. */
const next = (sort: Sort, key: string): Sort =>
  sort?.key !== key ? { key, down: false } : sort.down ? null : { key, down: true }

export function GridHead<T>(props: Props<T>) {
  const { sort, hidden } = props
  const toggle = (key: string) => {
    const now = hidden.includes(key) ? hidden.filter((k) => k !== key) : [...hidden, key]
    props.onHide(now)
    remember(`columns-${props.name}`, now)
  }
  return (
    <Box
      role="row"
      sx={{
        display: 'flex',
        position: 'sticky',
        top: 0,
        zIndex: 2,
        minWidth: props.wide,
        height: HEAD_PX,
        bgcolor: '#F6F1E7',
        borderBottom: `1px solid ${LINE}`,
        color: QUIET,
        fontSize: 11,
        fontWeight: 600,
      }}
    >
      <Box sx={{ width: 36, flexShrink: 0 }}>
        <Checkbox
          size="small"
          checked={props.checked}
          indeterminate={!props.checked && props.some}
          onChange={props.onCheck}
          slotProps={{ input: { 'aria-label': 'Select all' } }}
          sx={{ p: 0.5 }}
        />
      </Box>
      <Headings columns={props.shown} sort={sort} onSort={props.onSort} />
      <Columns all={props.all} hidden={hidden} toggle={toggle} />
    </Box>
  )
}

interface HeadingsProps<T> {
  columns: Column<T>[]
  sort: Sort
  onSort: (sort: Sort) => void
}

function Headings<T>({ columns, sort, onSort }: HeadingsProps<T>) {
  return (
    <>
      {columns.map((c) => (
        <Box
          key={c.key}
          role="columnheader"
          aria-sort={sort?.key === c.key ? (sort.down ? 'descending' : 'ascending') : 'none'}
          onClick={() => onSort(next(sort, c.key))}
          sx={{
            width: c.width,
            flexShrink: 0,
            px: 0.75,
            display: 'flex',
            alignItems: 'center',
            cursor: 'pointer',
          }}
        >
          {c.name}
          {sort?.key === c.key && (sort.down ? <ArrowDropDownIcon /> : <ArrowDropUpIcon />)}
        </Box>
      ))}
    </>
  )
}

interface ColumnsProps<T> {
  all: Column<T>[]
  hidden: string[]
  toggle: (key: string) => void
}

function Columns<T>({ all, hidden, toggle }: ColumnsProps<T>) {
  const [menu, setMenu] = useState<HTMLElement | null>(null)
  return (
    <>
      <IconButton
        size="small"
        aria-label="Choose columns"
        onClick={(e) => setMenu(e.currentTarget)}
        sx={{ position: 'sticky', right: 0, ml: 'auto', bgcolor: '#F6F1E7' }}
      >
        <ViewColumnOutlinedIcon fontSize="small" />
      </IconButton>
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
        {all.map((c) => (
          <MenuItem key={c.key} dense onClick={() => toggle(c.key)}>
            <Checkbox size="small" checked={!hidden.includes(c.key)} sx={{ p: 0, mr: 1 }} />
            {c.name}
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
