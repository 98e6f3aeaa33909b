// Every kind of look that a layer can have, a line each.
import { initialNumbers, sample, type Value } from '../keys'
import type { Kernels } from '../render/kernels'
import type { Rows } from '../render/rows'
import { GRAIN, type PlannedGrain } from './grain'
import type { LookKind } from './kind'
import { LIGHT, type PlannedLight } from './light'

const TABLE = { light: LIGHT, grain: GRAIN } as const

/** One treatment of a layer's picture; a list of them is gone through in order. */
export interface Look {
  id: string
  kind: keyof typeof TABLE
  on: boolean
  /** By the names that its kind gives them. */
  values: Record<string, Value<number>>
}

export type PlannedLook = PlannedLight | PlannedGrain

export type { Grain } from './grain'

/** The kinds by name, for whoever does not care which one it is. */
export const LOOKS = TABLE as unknown as Readonly<Record<Look['kind'], LookKind<PlannedLook>>>

export const LOOK_KINDS = Object.keys(TABLE) as Look['kind'][]

/** The numbers of a look that nobody has changed yet. */
export const freshValues = (kind: Look['kind']): Look['values'] => initialNumbers(LOOKS[kind].values)

/** Those looks that change something at a frame, in order. */
export function planLooks(looks: readonly Look[], frame: number, scale: number): PlannedLook[] {
  return looks.flatMap(({ kind, on, values }) => {
    const at = Object.fromEntries(Object.entries(values).map(([name, value]) => [name, sample(value, frame)]))
    return (on && LOOKS[kind].plan(at, scale, frame)) || []
  })
}

/** A picture with looks, the first of them first. */
export const lookRows = (k: Kernels, looks: readonly PlannedLook[], source: Rows): Rows =>
  looks.reduce((rows, look) => LOOKS[look.kind].rows(k, look, rows), source)
