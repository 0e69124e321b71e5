/** What the I/O bench holds: the view asked for, what is shown, what is chosen. */
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { client, got } from '../../api/client'
import { remember, remembered } from '../../kit/remember'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import { useAhead } from './ahead'
import type { AddressSpace, IoView } from './shapes'

export type Page = 'list' | 'allocate' | 'map' | 'check' | 'bring'
/** How several points are put on channels one after another. */
export type Order = 'list' | 'drawn' | 'named'
export type By = '' | 'location' | 'function'
export type Form = '' | 'address' | 'card' | 'rack' | 'point' | 'draw' | 'again' | 'move' | 'tie'

const PAGES: Page[] = ['list', 'allocate', 'map', 'check', 'bring']

export function useIo() {
  const projectId = useProject((s) => s.projectId)
  const [search, setSearch] = useSearchParams()
  const [by, setBy] = useState<By>(() => remembered<By>('io-by', ''))
  const [maker, setMaker] = useState<string>(() => remembered('io-maker', ''))
  const [chosen, choose] = useState<Set<string>>(new Set())
  const [channel, setChannel] = useState('')
  const [order, setOrder] = useState<Order>(() => remembered<Order>('io-order', 'list'))
  const [form, setForm] = useState<{ form: Form; about: string }>({ form: '', about: '' })
  const page = PAGES.find((p) => p === search.get('page')) ?? 'list'
  const view = useBench<IoView>(
    'io',
    () =>
      got(
        client.GET('/api/projects/{project_id}/io', {
          params: { path: { project_id: projectId }, query: { by, maker } },
        }),
      ),
    [by, maker],
  )
  const { shown, setAhead } = useAhead(view.data)
  return {
    projectId,
    page,
    go: (to: Page) => setSearch({ page: to }),
    view: shown,
    /** Shows one point on a channel until the server has said where it is. */
    setAhead,
    by,
    setBy: (value: By) => {
      setBy(value)
      remember('io-by', value)
    },
    setMaker: (value: string) => {
      setMaker(value)
      remember('io-maker', value)
    },
    order,
    setOrder: (value: Order) => {
      setOrder(value)
      remember('io-order', value)
    },
    chosen,
    choose,
    /** The channel in hand, by its name. */
    channel,
    setChannel,
    form: form.form,
    /** The card that the form is about, '' for none in particular. */
    about: form.about,
    open: (name: Form, about = '') => setForm({ form: name, about }),
  }
}

export type Io = ReturnType<typeof useIo>

export function useMap(): AddressSpace[] | undefined {
  const projectId = useProject((s) => s.projectId)
  return useBench<AddressSpace[]>('io-map', () =>
    got(client.GET('/api/projects/{project_id}/io/map', { params: { path: { project_id: projectId } } })),
  ).data
}
