/** The Issue bench: packs, lists by recipe, reports, revisions and what changed between them, and the check before. */
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { Bench, Empty } from '../../kit/Bench'
import type { BenchProps } from '../../project/bench'
import { paging, useCommands } from '../../project/commands'
import { CheckPage } from './CheckPage'
import { FreezePage } from './FreezePage'
import { IssueList } from './IssueList'
import { ListPage } from './ListPage'
import { NewRecipe } from './NewRecipe'
import { PackPage } from './PackPage'
import { RevisionPage } from './RevisionPage'
import { EVERYTHING, NEW, usePacks, useRecipes, useRevisions } from './shapes'
import { WhatChanged } from './WhatChanged'

const FIRST = `pack:${EVERYTHING}`

/** How often what is shown was asked for: then it begins anew. What is shown until then is left as it is. */
function useTurns(shown: string) {
  const [turns, setTurns] = useState<Record<string, number>>({})
  const begin = (show: string) => setTurns({ ...turns, [show]: (turns[show] ?? 0) + 1 })
  return [turns[shown] ?? 0, begin] as const
}

export function IssueBench({ outline, canEdit }: BenchProps) {
  const [search, setSearch] = useSearchParams()
  const shown = search.get('show') ?? FIRST
  const [turn, begin] = useTurns(shown)
  const recipes = useRecipes()
  const packs = usePacks()
  const asked = useRevisions()
  const revisions = asked.data
  const go = (show: string) => {
    begin(show)
    setSearch({ show })
  }
  const kinds = (recipes?.reports ?? []).map((r) => r.key)
  useCommands('Issue', paging('document', kinds, shown, go))
  if (!recipes || !packs || !revisions) return <Empty>Reading what can be issued…</Empty>
  const [kind, id] = shown.split(':')
  const line = packs.packs.find((p) => (p.pack.id || EVERYTHING) === id)
  const revision = revisions.revisions.find((r) => r.id === id)
  return (
    <Bench name="Issue" list={<IssueList {...{ outline, recipes, packs, revisions, shown, go, canEdit }} />}>
      {kind === 'pack' ? (
        line ? (
          <PackPage key={`${id} ${turn}`} all={packs} {...{ line, canEdit, go }} />
        ) : (
          <Empty>This pack is gone. Choose another on the left.</Empty>
        )
      ) : kind === 'check' ? (
        <CheckPage />
      ) : kind === 'changes' ? (
        <WhatChanged revisions={revisions} />
      ) : kind === 'freeze' ? (
        <FreezePage
          key={revisions.next_index}
          revisions={revisions}
          done={(made) => {
            void asked.refetch()
            go(`revision:${made}`)
          }}
        />
      ) : kind === 'revision' ? (
        revision ? (
          <RevisionPage
            key={id}
            line={revision}
            last={revision === revisions.revisions[0]}
            refresh={() => void asked.refetch()}
            compare={() => setSearch({ show: 'changes', since: revision.id })}
            {...{ canEdit, go }}
          />
        ) : (
          <Empty>Reading the revision…</Empty>
        )
      ) : kind === NEW ? (
        <NewRecipe key={turn} all={recipes} go={go} />
      ) : (
        <ListPage key={`${shown} ${turn}`} id={shown} all={recipes} {...{ canEdit, go }} />
      )}
    </Bench>
  )
}
