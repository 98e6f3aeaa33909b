// Ways of looking at a frame besides the finished picture, each told as another plan.
import { UNMOVED } from '../affine'
import { asFilmed } from '../picture'
import type { Plan, PlannedLayer } from './types'

export type View = 'picture' | 'matte' | 'tint' | 'cut-out' | 'uncut'

export const VIEWS: readonly View[] = ['picture', 'matte', 'tint', 'cut-out', 'uncut']

/** How what lies about a layer that is seen uncut is shown: as it is, dimmed, or through the layer. */
export type Beside = 'plain' | 'dimmed' | 'through'

export const BESIDES: readonly Beside[] = ['plain', 'dimmed', 'through']

/** How much of the rest is left where it is dimmed, and of the layer where one sees through it. */
const DIM = 0.3
const THROUGH = 0.5

const TINT = '#a9ecd9'

const sheet = (layer: PlannedLayer, colour: string): PlannedLayer => ({
  id: `${layer.id}-sheet`,
  picture: { kind: 'colour', colour },
  place: UNMOVED,
  opacity: 1,
  blend: 'normal',
  matte: layer.matte,
  looks: [],
})

/** A layer that was made one with its line and shadow, in parts again: each has a matte of its own. */
function partsOf(layer: PlannedLayer): PlannedLayer[] {
  const { picture, id } = layer
  const parts = picture.kind === 'group' ? picture.plan.layers : []
  return parts.length > 0 && parts.every(p => p.id === id) ? parts : [layer]
}

/** What layers keep, in grey. */
const matteOf = (plan: Plan, layers: readonly PlannedLayer[]): Plan => {
  const [first] = layers
  const picture = { kind: 'matte', layers: layers.map(l => sheet(l, '#ffffff')) } as const
  return { ...plan, backdrop: '#000000', layers: [{ ...sheet(first!, '#ffffff'), picture, matte: [] }] }
}

function uncutLayers({ layers }: Plan, layerId: string | null, beside: Beside): PlannedLayer[] {
  const whole = (l: PlannedLayer): PlannedLayer => ({
    ...l,
    picture: asFilmed(l.picture),
    matte: [],
    opacity: beside === 'through' ? l.opacity * THROUGH : l.opacity,
  })
  const last = layers.findLastIndex(l => l.id === layerId)
  const shown = layers.map(l => (l.id === layerId ? whole(l) : l))
  if (beside !== 'dimmed' || last < 0) return shown
  const dark = { ...sheet(layers[last]!, '#000000'), opacity: 1 - DIM, matte: [] }
  // What is nearer than the layer gives way to it.
  const nearer = shown.slice(0, last).map(l => (l.id === layerId ? l : { ...l, opacity: l.opacity * DIM }))
  return [...nearer, shown[last]!, dark, ...shown.slice(last + 1)]
}

/**
 * The plan of a view of one layer, a row of copies being one: its matte in grey, its picture with what is taken away
 * tinted, its cut-out over nothing, or the shot with that layer uncut. Without such a layer in the frame every view is
 * the picture, but for the matte and the cut-out, which are empty.
 */
export function planView(plan: Plan, view: View, layerId: string | null, beside: Beside = 'plain'): Plan {
  const own = plan.layers.filter(l => l.id === layerId)
  const [nearest] = own
  const cut = own.map((l): PlannedLayer => ({ ...l, blend: 'normal' }))
  switch (view) {
    case 'picture':
      return plan
    case 'matte':
      return own.length > 0 ? matteOf(plan, own.flatMap(partsOf)) : { ...plan, backdrop: '#000000', layers: [] }
    case 'cut-out':
      return { ...plan, backdrop: null, layers: cut }
    case 'uncut':
      return { ...plan, layers: uncutLayers(plan, layerId, beside) }
    case 'tint': {
      if (!nearest) return plan
      // Over the whole picture, tinted, lies what is kept of it.
      const uncut: PlannedLayer = {
        ...nearest,
        picture: asFilmed(nearest.picture),
        opacity: 1,
        blend: 'normal',
        matte: [],
      }
      if (nearest.matte.length === 0) return { ...plan, layers: [uncut] }
      const tint = { ...sheet(nearest, TINT), opacity: 0.35, matte: [] }
      return { ...plan, layers: [...cut.map(l => ({ ...l, opacity: 1 })), tint, uncut] }
    }
  }
}
