// What a cut-out is made of, as it is named: the same names make the same cut-out everywhere.
import type { Recipe } from '../recipe'
import { bearing, between, type Stroke } from './strokes'

/** How a take is cut out by its plate. */
export type Cut = {
  /** The digest of the take or still that shows the set empty; '': none, strokes alone tell. */
  plate: string
  /** Seconds of it in which nobody is there; the mean of them is the plate. */
  from: number
  to: number
  /** 0..100: how little somebody has to differ from the set; 50 as a rule. */
  sensitive: number
  /** 0..200: how much of the light that their shadow takes is taken of what lies behind, in hundredths. */
  shadow: number
  /** What was painted to correct it, or to tell it where there is no plate. */
  strokes?: readonly Stroke[]
  /** Whether nothing is painted on it until it is opened again. */
  settled?: boolean
}

export const CUTOUT_METHOD = 'cutout'
/** The picture of a cut-out that shows somebody's own colours where they are soft, and is clear elsewhere. */
export const COLOURS_PART = 'colours'
/** Grows whenever frames come out otherwise than before. */
const VERSION = 17

/** Somebody told by strokes alone. */
export const CARRIED_METHOD = 'carried'
const CARRIED = 7

/** The strokes of a recipe. */
export const strokesOf = ({ settings }: Recipe): readonly Stroke[] => JSON.parse(String(settings.strokes))

/** Whether anything tells somebody from the rest. */
export const isTold = ({ plate, strokes = [] }: Cut): boolean => plate !== '' || strokes.some(s => s.does === 'keep')

/** What makes a moment of a take: only strokes that bear on it are part of it, so that a stroke makes nothing anew but what it may change. */
export function cutoutRecipe(take: string, { plate, from, to, sensitive, strokes = [] }: Cut, seconds = 0): Recipe {
  if (plate === '') {
    const settings = { strokes: JSON.stringify(between(strokes, seconds)) }
    return { method: CARRIED_METHOD, version: CARRIED, of: [take], settings }
  }
  const near = bearing(strokes, seconds)
  const painted: Recipe['settings'] = near.length > 0 ? { strokes: JSON.stringify(near) } : {}
  return {
    method: CUTOUT_METHOD,
    version: VERSION,
    of: [take, plate],
    settings: { from, to, sensitive, ...painted },
  }
}

/** What a recipe of a cut-out says. */
export function cutOf({ settings }: Recipe): Pick<Cut, 'from' | 'to' | 'sensitive'> & { strokes: readonly Stroke[] } {
  const { from, to, sensitive, strokes } = settings as { from: number; to: number; sensitive: number; strokes?: string }
  return { from, to, sensitive, strokes: strokes ? JSON.parse(strokes) : [] }
}

/** Grows whenever a take tells something else than before. */
const LOCK_OFF = 15

/** What a take tells of its camera, light and people: by a plate, or by what shows most of the time in itself. */
export const lockOffRecipe = (take: string, plate: Pick<Cut, 'plate' | 'from' | 'to'> | null): Recipe => ({
  method: 'lock-off',
  version: LOCK_OFF,
  of: plate ? [take, plate.plate] : [take],
  settings: plate ? { from: plate.from, to: plate.to } : {},
})
