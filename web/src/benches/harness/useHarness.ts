/** What the bench shows of a harness, kept by section and id: the server says only what is other than before. */
import { client, got } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { section } from '../../project/sections'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'
import type { HarnessView, SceneItem } from './shapes'

type Change = Schemas['HarnessChange']
type Sections = Change['put']

interface Known {
  revision: number
  sections: Sections
  /** Items as they are painted, the same objects as long as nothing of them is another. */
  items: Map<string, SceneItem>
}

/** What is known of each harness and variant that was looked at, those looked at longest ago forgotten first. */
const known = new Map<string, Known>()
const KEPT = 8

function changed(before: Sections, { whole, put, drop }: Change): Sections {
  if (whole) return put
  return {
    around: section(before.around, put.around, drop.around),
    order: section(before.order, put.order, drop.order),
    items: section(before.items, put.items, drop.items),
    prims: section(before.prims, put.prims, drop.prims),
    nodes: section(before.nodes, put.nodes, drop.nodes),
    segments: section(before.segments, put.segments, drop.segments),
    wires: section(before.wires, put.wires, drop.wires),
    connectors: section(before.connectors, put.connectors, drop.connectors),
  }
}

const listed = <T>(values: Record<string, T> = {}, ids: string[] = []) =>
  ids.flatMap((id) => (id in values ? [values[id]!] : []))

/** The items of the board; those of which neither facts nor primitives changed stay the same objects. */
function painted(sections: Sections, before: Map<string, SceneItem>, old: Sections): Map<string, SceneItem> {
  const found = new Map<string, SceneItem>()
  for (const id of sections.order?.order?.items ?? []) {
    const item = sections.items?.[id]
    const prims = sections.prims?.[id]
    if (!item || !prims) continue
    const same = old.items?.[id] === item && old.prims?.[id] === prims
    found.set(id, (same && before.get(id)) || { ...item, prims })
  }
  return found
}

function whole({ sections, items }: Known): HarnessView {
  const { facts, ...around } = sections.around!.around!
  const order = sections.order!.order!
  const size = order.size
  return {
    ...around,
    harness: facts && {
      ...facts,
      scene: size && { width: size[0], height: size[1], items: [...items.values()] },
      nodes: listed(sections.nodes, order.nodes),
      segments: listed(sections.segments, order.segments),
      wires: listed(sections.wires, order.wires),
      connectors: listed(sections.connectors, order.connectors),
    },
  }
}

async function ask(projectId: string, harness_id: string, variant_id: string): Promise<HarnessView> {
  const key = [projectId, harness_id, variant_id].join(' ')
  const before = known.get(key)
  const change = await got(
    client.GET('/api/projects/{project_id}/harness/changes', {
      params: {
        path: { project_id: projectId },
        query: { harness_id, variant_id, since: before?.revision ?? -1 },
      },
    }),
  )
  const sections = changed(before?.sections ?? {}, change)
  const items = painted(sections, before?.items ?? new Map(), before?.sections ?? {})
  const now = { revision: change.revision, sections, items }
  known.delete(key)
  known.set(key, now)
  if (known.size > KEPT) known.delete([...known.keys()][0]!)
  return whole(now)
}

export function useHarness(wanted: string, variant: string) {
  const projectId = useProject((s) => s.projectId)
  return useBench<HarnessView>('harness', () => ask(projectId, wanted, variant), [wanted, variant])
}
