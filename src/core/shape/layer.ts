// What another layer of the shot covers, or how bright it is.
import { isUnmoved } from '../affine'
import type { PlannedLayer } from '../plan/types'
import type { Kernels } from '../render/kernels'
import type { Rows } from '../render/rows'
import { contours } from './contour'
import type { Composing, Coverage, Feather, ShapeKind } from './kind'
import { openPolygons } from './rings'

export const READINGS = ['alpha', 'brightness'] as const

/** What is read of a layer: how much it covers, with its matte and all, or how bright it is over black. */
export type Reading = (typeof READINGS)[number]

/** `layer` is the id of one of the same shot; of one that is not there nothing is covered. */
export type Shown = { layer: string; of: Reading }

export interface PlannedShown {
  kind: 'layer'
  of: Reading
  layers: PlannedLayer[]
}

/** The one picture that is read as it lies, such as a cut-out's; null where there is more to it. */
function plainRows({ of, layers: [only, ...more] }: PlannedShown, { size, rows }: Composing): Rows | null {
  if (of !== 'alpha' || !only || more.length > 0) return null
  const { picture, place, opacity, blend, matte, looks } = only
  const isPlain = opacity === 1 && blend === 'normal' && matte.length === 0 && looks.length === 0 && isUnmoved(place)
  const found = isPlain ? rows(picture) : null
  return found?.width === size.width && found.height === size.height ? found : null
}

/** Opens the rows of what layers cover, or how bright they are. */
function openReading(k: Kernels, planned: PlannedShown, making: Composing): Coverage {
  const { of, layers } = planned
  const { size, compose } = making
  const { width, height } = size
  const plain = plainRows(planned, making)
  if (plain) {
    const { top, bottom } = plain.extent ?? { top: 0, bottom: height }
    const codes = k.alloc(width * 4)
    const row = (y: number, out: number) => {
      plain.open(y)
      plain.codes(0, width, codes)
      k.codesAlphaRow(codes, out, width)
    }
    return { top, bottom, row }
  }
  const isAlpha = of === 'alpha'
  const make = compose({ size, backdrop: isAlpha ? null : '#000000', layers }, isAlpha ? 'linear' : 'codes')
  const row = k.alloc(width * 16)
  return {
    top: 0,
    bottom: height,
    row(y, out) {
      make(y, row)
      if (isAlpha) k.alphaRow(row, out, width)
      else k.brightRow(row, out, width)
    },
  }
}

/** The same, grown and feathered by the distance to where half is covered. */
function openGrown(k: Kernels, planned: PlannedShown, feather: Feather, making: Composing): Coverage {
  const { width, height } = making.size
  const found = k.scope(() => {
    const { row: read } = openReading(k, planned, making)
    const stride = width * 4
    const all = k.alloc(stride * height)
    for (let y = 0; y < height; y++) read(y, all + y * stride)
    const reach = Math.max(0, feather.grow) + Math.max(feather.inside, feather.outside) + 2
    return contours(k.floats(all, width * height), width, height, reach)
  })
  return openPolygons(k, found, feather, making.size)
}

export const LAYER: ShapeKind<Shown, PlannedShown> = {
  name: 'Layer',
  letter: 'y',
  field: 'shows',
  word: 'layer',
  make: (_, { layer }) => ({ layer, of: 'alpha' }),
  schema: ({ id, oneOf, record }) => record({ layer: id, of: oneOf(...READINGS) }),
  shows: ({ layer }) => layer,
  shownAs: (value, layer) => ({ ...value, layer }),
  carried: value => value,
  plan: ({ of, layer }, _, { layersOf }) => ({ kind: 'layer', of, layers: layersOf(layer) }),
  needs: ({ layers }, of) => layers.flatMap(of),
  extent: () => Number.POSITIVE_INFINITY,
  open(k, planned, feather, making) {
    const { grow, inside, outside } = feather
    if (grow !== 0 || inside !== 0 || outside !== 0) return openGrown(k, planned, feather, making)
    return openReading(k, planned, making)
  },
}
