/** What is shown of a sheet: the values of each section by id, and how an answer changes them. */
import type { ViewChange } from '../api/client'
import type { DeviceRow, SheetFacts, SnagRow, WireRow } from '../api/shapes'
import type { Item } from '../scene/item'

export interface View {
  items: Record<string, Item>
  wires: Record<string, WireRow>
  devices: Record<string, DeviceRow>
  snags: Record<string, SnagRow>
  sheet: { sheet?: SheetFacts }
}

export const emptyView: View = { items: {}, wires: {}, devices: {}, snags: {}, sheet: {} }

/** A section after a change: what is put into it, and without what is dropped. */
function section<T>(before: Record<string, T>, put?: Record<string, T>, drop?: string[]): Record<string, T> {
  if (!put && !drop) return before
  const next = { ...before, ...put }
  for (const id of drop ?? []) delete next[id]
  return next
}

/** The view after a change; untouched entries stay the same objects, so that they are not painted again. */
export function changed(view: View, change: ViewChange | null | undefined): View {
  if (!change) return view
  const { put, drop, whole } = change
  const before = whole ? emptyView : view
  return {
    items: section(before.items, put.items as Record<string, Item> | undefined, drop.items),
    wires: section(before.wires, put.wires, drop.wires),
    devices: section(before.devices, put.devices, drop.devices),
    snags: section(before.snags, put.snags, drop.snags),
    sheet: section(before.sheet as Record<string, SheetFacts>, put.sheet, drop.sheet),
  }
}
