/** The omnibox: find a tag, wire number or sheet, or do an action by its name. */
import Autocomplete from '@mui/material/Autocomplete'
import Box from '@mui/material/Box'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { useNavigate } from 'react-router'
import { client, got } from '../api/client'
import { restOn } from '../project/ahead'
import { useCommandLists } from '../project/commands'
import { FindField } from './FindField'
import { OMNIBOX } from './focus'
import { MONO, QUIET } from '../theme/theme'

const GROUPS: Record<string, string> = {
  pin: 'Pins',
  place: 'Places',
  address: 'Addresses',
  sheet: 'Sheets',
  device: 'Devices',
  wire: 'Wires',
  text: 'Texts',
  part: 'Parts of the project',
  library: 'Library',
  point: 'I/O points',
  cable: 'Cables',
  enclosure: 'Enclosures',
  card: 'Cards',
  strip: 'Strips',
  harness: 'Harnesses',
  connector: 'Connectors',
  function: 'Functions',
  location: 'Locations',
  'wire type': 'Wire types',
  stamp: 'Stamps',
  list: 'Lists',
  recipe: 'Recipes',
  pack: 'Packs',
  revision: 'Revisions',
}
const PARTS = ['part', 'library']
/** Whether a label has all the words, in any order. */
const hasWords = (label: string, words: string) =>
  words.split(/\s+/).every((word) => label.toLowerCase().includes(word))

interface Line {
  group: string
  label: string
  hint: string
  /** The sheet it leads to, which is asked for while it is marked. */
  sheet?: string
  run: () => void
}

/** What is found in the project for the words, and what can be done that is called so. */
function useLines(projectId: string, words: string): Line[] {
  const go = useNavigate()
  const found = useQuery({
    queryKey: ['find', projectId, words],
    queryFn: () =>
      got(
        client.GET('/api/projects/{project_id}/find', {
          params: { path: { project_id: projectId }, query: { q: words } },
        }),
      ),
    enabled: words.trim() !== '' && !words.trimStart().startsWith('>'),
    // What was found for the letters before stays until the new answer is there, so that the list does not jump.
    placeholderData: keepPreviousData,
  })
  // A ">" in front asks for what can be done alone.
  const only = words.trimStart().startsWith('>')
  const wanted = words.trim().replace(/^>\s*/, '').toLowerCase()
  const lists = useCommandLists()
  const actions: Line[] = Object.values(lists)
    .flat()
    .filter((c) => !c.id.endsWith('-too') && c.id !== 'find' && (c.enabled?.() ?? true))
    .map((c) => ({ group: 'Do', label: c.label, hint: c.shortcut, run: c.run }))
    .filter((l) => hasWords(l.label, wanted))
  // Of what was found for other letters only what has these too may be taken.
  const known = (found.data ?? []).filter(
    (f) => !found.isPlaceholderData || f.label.toLowerCase().includes(wanted),
  )
  const places = (words.trim() && !only ? known : []).map((f) => ({
    kind: f.kind,
    line: {
      group: GROUPS[f.kind] ?? f.kind,
      label: f.label,
      hint: '',
      sheet: f.sheet_id,
      run: () =>
        void go(
          f.sheet_id
            ? `/p/${projectId}/draw/${f.sheet_id}${f.id ? `?sel=${f.id}` : ''}`
            : `/p/${projectId}/${f.bench}`,
        ),
    },
  }))
  // Parts are many and found late: they come behind what can be done, so that it does not move under the pointer.
  const parts = places.filter((p) => PARTS.includes(p.kind))
  const others = places.filter((p) => !PARTS.includes(p.kind))
  return [...others.map((p) => p.line), ...actions, ...parts.map((p) => p.line)]
}

interface OmniboxProps {
  projectId: string
  words: string
  setWords: (words: string) => void
  /** Whether the caret stood in the box when this came into its place: it goes on there, with what is found open. */
  entered: boolean
}

export function Omnibox({ projectId, words, setWords, entered }: OmniboxProps) {
  const box = useRef<HTMLInputElement>(null)
  const marked = useRef<Line | null>(null)
  const lines = useLines(projectId, words)
  // The first line is taken with Enter; a mark that a key or the pointer moves says so itself.
  const first = lines[0]?.sheet ?? ''
  useEffect(() => restOn(projectId, first), [projectId, first])
  /** Enter gives the typed words when the list has just changed: then the marked line is meant, else the first. */
  const take = (line: Line | string | null) => {
    const mark = marked.current
    const same = mark && lines.find((l) => l.label === mark.label && l.group === mark.group)
    const meant = line && typeof line !== 'string' ? line : (same ?? lines[0])
    meant?.run()
    setWords('')
    box.current?.blur()
  }
  return (
    <Autocomplete<Line, false, false, true>
      freeSolo
      autoHighlight
      clearOnBlur
      options={lines}
      groupBy={(l) => l.group}
      getOptionLabel={(l) => (typeof l === 'string' ? l : l.label)}
      filterOptions={(all) => all}
      inputValue={words}
      value={null}
      onInputChange={(_, value, reason) => setWords(reason === 'input' ? value : '')}
      onHighlightChange={(_, line) => {
        marked.current = line && typeof line !== 'string' ? line : null
        restOn(projectId, marked.current?.sheet ?? '')
      }}
      onChange={(_, line) => take(line)}
      renderOption={({ key, ...props }, line) => (
        <Box component="li" key={key + line.label} {...props} sx={{ display: 'flex', gap: 1, fontSize: 13 }}>
          <span style={{ flex: 1 }}>{line.label}</span>
          <kbd style={{ font: `11px ${MONO}`, color: QUIET }}>{line.hint}</kbd>
        </Box>
      )}
      openOnFocus={words !== ''}
      renderInput={(params) => (
        <FindField
          frame={params.slotProps.input.ref}
          inputRef={box}
          autoFocus={entered}
          inputProps={{ ...params.slotProps.htmlInput, 'aria-label': OMNIBOX }}
        />
      )}
      slotProps={{
        paper: { sx: { width: 440 } },
        popper: { sx: { '& .MuiAutocomplete-groupLabel': { lineHeight: '26px', fontSize: 11.5 } } },
        listbox: { sx: { maxHeight: '64vh', '& .MuiAutocomplete-option': { minHeight: 0, py: 0.4 } } },
      }}
      sx={{ width: 'min(360px, 100%)' }}
    />
  )
}
