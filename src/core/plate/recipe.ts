// What a cut-out is made of, as it is named: the same names make the same cut-out everywhere.
import type { Recipe } from '../recipe'

/** How a take is cut out by its plate. */
export type Cut = {
  /** The digest of the take or still that shows the set empty; '': none yet. */
  plate: string
  /** Seconds of it in which nobody is there; the mean of them is the plate. */
  from: number
  to: number
  /** 0..100: how little somebody has to differ from the set; 50 as a rule. */
  sensitive: number
  /** 0..200: how much of the light that their shadow takes is taken of what lies behind, in hundredths. */
  shadow: number
}

export const CUTOUT_METHOD = 'cutout'
/** Grows whenever frames come out otherwise than before. */
const VERSION = 1

export const cutoutRecipe = (take: string, { plate, from, to, sensitive }: Cut): Recipe => ({
  method: CUTOUT_METHOD,
  version: VERSION,
  of: [take, plate],
  settings: { from, to, sensitive },
})

/** Grows whenever a take tells something else than before. */
const LOCK_OFF = 1

/** What a take tells of its camera, light and people: by a plate, or by what shows most of the time in itself. */
export const lockOffRecipe = (take: string, plate: Pick<Cut, 'plate' | 'from' | 'to'> | null): Recipe => ({
  method: 'lock-off',
  version: LOCK_OFF,
  of: plate ? [take, plate.plate] : [take],
  settings: plate ? { from: plate.from, to: plate.to } : {},
})
