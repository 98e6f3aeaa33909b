// What a recipe makes of a moment of a take, whoever has made it.
import type { Recipe } from '../recipe'
import { pictureRows } from '../render/rows'
import type { PictureKind } from './kind'

export interface DerivedPicture {
  kind: 'derived'
  recipe: Recipe
  /** Which of the pictures that it makes. */
  part: string
  /** Of the take that the recipe names first. */
  seconds: number
}

export const DERIVED: PictureKind<DerivedPicture> = {
  needs: ({ recipe, part, seconds }) => [{ recipe, part, seconds }],
  rows(k, { recipe, part, seconds }, { find }) {
    const picture = find({ recipe, part, seconds })
    return picture && picture.kind !== 'letters' ? pictureRows(k, picture) : null
  },
}
