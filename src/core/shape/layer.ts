// What another layer of the shot covers, or how bright it is.
import type { PlannedLayer } from '../plan/types'
import type { Kernels } from '../render/kernels'
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

/** Opens the rows of what layers cover, or how bright they are. */
function openReading(k: Kernels, { of, layers }: PlannedShown, { size, compose }: Composing) {
  const { width } = size
  const isAlpha = of === 'alpha'
  const make = compose({ size, backdrop: isAlpha ? null : '#000000', layers }, isAlpha ? 'linear' : 'codes')
  const row = k.alloc(width * 16)
  return (y: number, out: number) => {
    make(y, row)
    if (isAlpha) k.alphaRow(row, out, width)
    else k.brightRow(row, out, width)
  }
}

/** The same, grown and feathered by the distance to where half is covered. */
function openGrown(k: Kernels, planned: PlannedShown, feather: Feather, making: Composing): Coverage {
  const { width, height } = making.size
  const found = k.scope(() => {
    const read = openReading(k, planned, making)
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
    return { top: 0, bottom: making.size.height, row: openReading(k, planned, making) }
  },
}
