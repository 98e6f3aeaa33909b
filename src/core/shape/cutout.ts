// Somebody, told from the set behind them by its plate.

import { type Affine, UNMOVED } from '../affine'
import type { PlannedPicture } from '../picture'
import { COLOURS_PART, type Cut, cutoutRecipe, isTold } from '../plate/recipe'
import type { Own, ShapeKind } from './kind'
import { LAYER, type PlannedShown } from './layer'

const asShown = (picture: PlannedPicture, place: Affine): PlannedShown => ({
  kind: 'layer',
  of: 'alpha',
  layers: [{ id: '', picture, place, opacity: 1, blend: 'normal', matte: [], looks: [] }],
})

const EVERYTHING = asShown({ kind: 'colour', colour: '#ffffff' }, UNMOVED)

/** One of the pictures that tell somebody in a take; null where nothing tells them, or of what is no take. */
function told(cut: Cut, { digest, moment }: Own, part: string): PlannedPicture | null {
  if (!isTold(cut) || digest === null) return null
  return { kind: 'derived', recipe: cutoutRecipe(digest, cut, moment), part, seconds: moment }
}

function part(cut: Cut, own: Own, name: string): PlannedShown | null {
  const picture = told(cut, own, name)
  return picture && asShown(picture, own.map)
}

export const CUTOUT: ShapeKind<Cut, PlannedShown> = {
  name: 'Plate cut-out',
  letter: 'q',
  field: 'cut',
  word: 'cut-out',
  make: (_, { plate }) => ({ ...(plate ?? { plate: '', from: 0, to: 0 }), sensitive: 50, shadow: 100 }),
  schema: ({ px, digest, extent, percent, oneOf, flag, maybe, list, record }) =>
    record({
      plate: digest,
      from: extent,
      to: extent,
      sensitive: percent(100),
      shadow: percent(200),
      strokes: maybe(
        list(record({ at: extent, does: oneOf('keep', 'lose'), size: extent, points: list(record({ x: px, y: px })) })),
      ),
      settled: maybe(flag),
    }),
  files: ({ plate }) => (plate === '' ? [] : [plate]),
  plate: ({ plate, from, to }) => (plate === '' ? null : { plate, from, to }),
  isMade: isTold,
  // From one plate to another there is nothing in between.
  mix: one => one,
  carried: value => value,
  // Where nothing tells somebody nothing is taken away.
  plan: (cut, _, { own }) => part(cut, own, 'alpha') ?? EVERYTHING,
  shade(cut, own) {
    const shape = cut.plate !== '' && cut.shadow > 0 ? part(cut, own, 'shadow') : null
    return shape && { shape, strength: cut.shadow / 100 }
  },
  colours: (cut, own) => told(cut, own, COLOURS_PART),
  needs: LAYER.needs,
  extent: LAYER.extent,
  open: LAYER.open,
}
