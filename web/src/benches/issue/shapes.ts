/** What the Issue bench is given, by short names, and where it is asked for. */
import { client, got, type AnyEdit } from '../../api/client'
import type { Schemas } from '../../api/shapes'
import { useProject } from '../../project/store'
import { useBench } from '../../project/useBench'

export type RecipeEdit = Extract<AnyEdit, { kind: 'keep-recipe' }>
export type Recipes = Schemas['Recipes']
export type Recipe = Recipes['recipes'][number]
export type ReportKind = Schemas['ReportKind']
export type ListValue = Schemas['ListValue']
export type Differences = Schemas['WhatChanged']
export type Packs = Schemas['Packs']
export type PackLine = Schemas['PackLine']
export type RunValue = Schemas['RunValue']
export type Finding = Schemas['FindingValue']
export type Revisions = Schemas['Revisions']
export type RevisionLine = Schemas['RevisionLine']

/** A column of a recipe: one of the report's by its key, or an own one joined from pieces. */
export interface RecipeColumn {
  key?: string
  heading?: string
  join?: string
}

/** What stands for the present beside frozen revisions. */
export const NOW = 'now'
/** The pack of everything, and a recipe that is not kept yet. */
export const EVERYTHING = 'everything'
export const NEW = 'new'

export function useRecipes() {
  const projectId = useProject((s) => s.projectId)
  return useBench<Recipes>('recipes', () =>
    got(client.GET('/api/projects/{project_id}/recipes', { params: { path: { project_id: projectId } } })),
  ).data
}

export function usePacks() {
  const projectId = useProject((s) => s.projectId)
  return useBench<Packs>('packs', () =>
    got(client.GET('/api/projects/{project_id}/packs', { params: { path: { project_id: projectId } } })),
  ).data
}

export function useRevisions() {
  const projectId = useProject((s) => s.projectId)
  return useBench<Revisions>('revisions', () =>
    got(client.GET('/api/projects/{project_id}/revisions', { params: { path: { project_id: projectId } } })),
  )
}

/** The name of a column as its recipe shows it. */
export function columnName(report: ReportKind | undefined, column: RecipeColumn): string {
  return column.heading || report?.columns.find((c) => c.key === column.key)?.heading || column.key || ''
}

/** What groups, sums, filters and order call a column. */
export const columnKey = (column: RecipeColumn) => column.key ?? column.heading ?? ''

/** A recipe as the edit that keeps it. */
export function asEdit(recipe: Recipe): RecipeEdit {
  const { id, ...facts } = recipe
  return { kind: 'keep-recipe', recipe_id: id, ...facts } as RecipeEdit
}

/** A recipe to begin with: the report as it is. */
export function fresh(report: ReportKind): RecipeEdit {
  return {
    kind: 'keep-recipe',
    recipe_id: '',
    name: '',
    report: report.key,
    columns: report.columns.filter((c) => !c.extra).map((c) => ({ key: c.key })),
    filters: [],
    groups: [],
    sums: [],
    sort: [],
    merged: false,
    breaks: false,
    head: '{project number} {project}, revision {project revision}',
    head_on: 'all',
    separator: ',',
    decimal: '.',
    encoding: 'utf-8 with mark',
  } as RecipeEdit
}
