/** What a text is in the other languages of the project: one field for each. */
import { Field } from '../../kit/Field'
import { Section } from '../../kit/Section'
import { makeEdit } from '../../api/client'
import { usePick } from '../../project/store'
import { languageName, useWordings } from '../../project/useWordings'

export function SaidIn({ words, canEdit }: { words: string; canEdit: boolean }) {
  const { send } = usePick('send')
  const known = useWordings().data
  const text = known?.texts.find((t) => t.words === words)
  if (!known?.languages.length || !text) return null
  return (
    <Section title="In other languages">
      {known.languages.map((language) => (
        <Field
          key={language}
          label={languageName(language)}
          lines={words.includes('\n')}
          value={text.said[language] ?? ''}
          disabled={!canEdit}
          onSave={(said) => send(makeEdit('write-wordings', { wordings: [{ words, language, said }] }))}
        />
      ))}
    </Section>
  )
}
