// Brings documents of older versions up to date, one step a version.

import { FORMAT, VERSION } from '../shot/types'
import type { Checked } from './checked'
import { toSecond } from './migrate-1'
import { toThird } from './migrate-2'
import { toFourth } from './migrate-3'
import { toFifth } from './migrate-4'

type Step = (document: Record<string, unknown>) => Record<string, unknown>

/** STEPS[n] turns version n into n + 1. */
const STEPS: Readonly<Record<number, Step>> = { 1: toSecond, 2: toThird, 3: toFourth, 4: toFifth }

/** Returns the document at the current version, still unvalidated. */
export function migrate(data: unknown, steps = STEPS, current: number = VERSION): Checked<unknown> {
  const document = data as Record<string, unknown> | null
  if (typeof document !== 'object' || document === null || document.format !== FORMAT) {
    return { ok: false, problem: 'It is not a Jolly Ghost project.' }
  }
  const version = document.version
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return { ok: false, problem: 'It does not say which version of the format it is.' }
  }
  if (version > current) {
    return {
      ok: false,
      problem: `It was made by a newer version of Jolly Ghost (format ${version}, this one reads up to ${current}). Update and open it again.`,
    }
  }
  let migrated = document
  for (let v = version; v < current; v++) {
    const step = steps[v]
    if (!step) return { ok: false, problem: `Format ${v} can no longer be read.` }
    try {
      migrated = { ...step(migrated), version: v + 1 }
    } catch {
      return { ok: false, problem: `It is of format ${v}, and damaged.` }
    }
  }
  return { ok: true, value: migrated }
}
