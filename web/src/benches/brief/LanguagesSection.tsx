/** The languages of the project as a table: each text, where it stands, and what it is in each of them. */
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useMemo, useState, type ReactNode } from 'react'
import { makeEdit } from '../../api/client'
import { LINE, QUIET } from '../../theme/theme'
import { Bench } from '../../kit/Bench'
import { counted } from '../../kit/counted'
import { Grid } from '../../kit/Grid'
import type { CellChange, Column } from '../../kit/gridData'
import { Act } from '../../kit/Act'
import { TableBar } from '../../kit/TableBar'
import { usePick } from '../../project/store'
import { SheetLink } from '../../project/SheetLink'
import { languageName, useWordings } from '../../project/useWordings'
import type { SaidLine, SaidTexts } from './shapes'

const missingIn = (data: SaidTexts, language: string) => data.texts.filter((t) => !t.said[language])

function columnsOf(languages: string[], canEdit: boolean): Column<SaidLine>[] {
  return [
    { key: 'words', name: 'Text', width: 230, text: (t) => t.words.replaceAll('\n', ' / ') },
    { key: 'kinds', name: 'Said by', width: 110, text: (t) => t.kinds.join(', ') },
    { key: 'count', name: 'Times', width: 50, text: (t) => String(t.count), mono: true },
    ...languages.map((language): Column<SaidLine> => ({
      key: language,
      name: languageName(language),
      width: 230,
      text: (t) => t.said[language] ?? '',
      edit: () => canEdit,
    })),
  ]
}

export function LanguagesSection({ list, canEdit }: { list: ReactNode; canEdit: boolean }) {
  const { send, say } = usePick('send', 'say')
  const data = useWordings().data
  const [picked, setPicked] = useState<string[]>([])
  const [missing, setMissing] = useState(false)
  const columns = useMemo(() => (data ? columnsOf(data.languages, canEdit) : []), [data, canEdit])
  const rows = useMemo(() => {
    if (!data || !missing) return data?.texts ?? []
    return data.texts.filter((t) => data.languages.some((language) => !t.said[language]))
  }, [data, missing])
  if (!data)
    return (
      <Bench name="Brief" list={list}>
        {null}
      </Bench>
    )
  const write = (changes: CellChange[]) =>
    void send(
      makeEdit('write-wordings', {
        wordings: changes.map(({ id, key, value }) => ({ words: id, language: key, said: value })),
      }),
    )
  const chosen = data.texts.find((t) => t.id === picked.at(-1))
  return (
    <Bench name="Brief" list={list} inspector={<Languages data={data} chosen={chosen} canEdit={canEdit} />}>
      <TableBar>
        <Box sx={{ flex: 1, color: QUIET, fontSize: 12 }}>{counted(data.texts.length, 'text')}</Box>
        <FormControlLabel
          control={<Checkbox size="small" checked={missing} onChange={(e) => setMissing(e.target.checked)} />}
          label="Only what is missing"
          slotProps={{ typography: { sx: { fontSize: 12.5 } } }}
        />
      </TableBar>
      <Grid
        name="Texts"
        columns={columns}
        rows={rows}
        selected={new Set(picked)}
        onSelect={setPicked}
        onChange={write}
        onProblem={(problem) => say(problem, 'error')}
      />
      <Box sx={{ px: 1.5, py: 0.5, fontSize: 11.5, color: QUIET, borderTop: `1px solid ${LINE}` }}>
        A text is said once for all places where it stands. Columns copied from a spreadsheet can be pasted.
      </Box>
    </Bench>
  )
}

interface LanguagesProps {
  data: SaidTexts
  chosen: SaidLine | undefined
  canEdit: boolean
}

/** The languages with what is missing in each, and where the text that is chosen stands. */
function Languages({ data, chosen, canEdit }: LanguagesProps) {
  const { send } = usePick('send')
  const [code, setCode] = useState('')
  const put = (languages: string[]) => send(makeEdit('set-languages', { languages }))
  return (
    <>
      <Box sx={{ fontWeight: 600, mb: 0.5 }}>Languages</Box>
      {data.languages.map((language) => (
        <Box key={language} sx={{ display: 'flex', alignItems: 'center', fontSize: 12.5, py: 0.25 }}>
          <Box sx={{ flex: 1 }}>
            {languageName(language)}
            <Box component="span" sx={{ color: QUIET }}>
              {' '}
              {counted(missingIn(data, language).length, 'text')} missing
            </Box>
          </Box>
          {canEdit && (
            <Act onClick={() => void put(data.languages.filter((l) => l !== language))}>Take away</Act>
          )}
        </Box>
      ))}
      {canEdit && (
        <Box
          component="form"
          aria-label="Add a language"
          onSubmit={(e: React.FormEvent) => {
            e.preventDefault()
            void put([...data.languages, code.trim()]).then((answer) => {
              if (answer) setCode('')
            })
          }}
        >
          <TextField
            fullWidth
            margin="dense"
            label="Code of a language, such as de"
            value={code}
            onChange={(e) => setCode(e.target.value)}
          />
          <Button type="submit" variant="outlined" disabled={!code.trim()}>
            Add the language
          </Button>
        </Box>
      )}
      {chosen?.sheet_id && (
        <Box sx={{ mt: 1.5, fontSize: 12.5 }}>
          “{chosen.words}” stands on{' '}
          <SheetLink sheetId={chosen.sheet_id} select={chosen.symbol_id}>
            its sheet
          </SheetLink>
        </Box>
      )}
    </>
  )
}
