// Exports that outlive their tab: what was ordered, until it is made; what was made, until it is forgotten.
import type { ExportOptions } from '../../media/export'
import { database } from './database'

export interface KeptExport {
  id: string
  /** The shot's identity. */
  project: string
  /** The file's name as it will be saved. */
  file: string
  detail: string
  options: Omit<ExportOptions, 'shot'>
  /** The document as it was when the film was ordered; null once it is made. */
  document: string | null
  /** How often it has been begun. */
  tries: number
  orderedAt: number
  bytes: number
}

export async function keepExport(kept: KeptExport): Promise<void> {
  await (await database()).put('exports', kept)
}

export async function dropExport(id: string): Promise<void> {
  await (await database()).delete('exports', id)
}

/** The latest first. */
export async function keptExports(): Promise<KeptExport[]> {
  const all = await (await database()).getAll('exports')
  return all.sort((a, b) => b.orderedAt - a.orderedAt)
}
