// Ways of looking at a frame besides the finished picture, each told as another plan.
import { type Plan, type PlannedLayer, UNMOVED } from './types'

export type View = 'picture' | 'matte' | 'tint' | 'cut-out' | 'uncut'

export const VIEWS: readonly View[] = ['picture', 'matte', 'tint', 'cut-out', 'uncut']

const TINT = '#a9ecd9'

const sheet = (layer: PlannedLayer, colour: string): PlannedLayer => ({
  id: `${layer.id}-sheet`,
  picture: { kind: 'colour', colour },
  place: UNMOVED,
  opacity: 1,
  blend: 'normal',
  matte: layer.matte,
})

/**
 * The plan of a view of one layer: its matte in grey, its picture with what is taken away tinted, its cut-out over
 * nothing, or the shot with that layer uncut. Without such a layer in the frame every view is the picture, but for the
 * matte and the cut-out, which are empty.
 */
export function planView(plan: Plan, view: View, layerId: string | null): Plan {
  const layer = plan.layers.find(l => l.id === layerId)
  switch (view) {
    case 'picture':
      return plan
    case 'matte':
      return { ...plan, backdrop: '#000000', layers: layer ? [sheet(layer, '#ffffff')] : [] }
    case 'cut-out':
      return { ...plan, backdrop: null, layers: layer ? [{ ...layer, blend: 'normal' }] : [] }
    case 'uncut':
      return { ...plan, layers: plan.layers.map(l => (l === layer ? { ...l, matte: [] } : l)) }
    case 'tint': {
      if (!layer) return plan
      const everything: PlannedLayer['matte'][number] = {
        shape: { kind: 'edge', x: -1e6, y: 0, nx: 1, ny: 0 },
        join: 'add',
        inverted: false,
        strength: 1,
        grow: 0,
        inside: 0,
        outside: 0,
      }
      // Taken away is all but the matte: everything, less each piece the other way round.
      const matte = layer.matte.length > 0 ? [everything, ...opposite(layer.matte)] : []
      const tint = { ...sheet(layer, TINT), opacity: 0.35, matte }
      const uncut: PlannedLayer = { ...layer, opacity: 1, blend: 'normal', matte: [] }
      return { ...plan, layers: layer.matte.length > 0 ? [tint, uncut] : [uncut] }
    }
  }
}

/** Pieces whose joining, after everything, gives one minus the joining of the given ones (De Morgan). */
function opposite(pieces: PlannedLayer['matte']): PlannedLayer['matte'] {
  return pieces.flatMap((piece, i): PlannedLayer['matte'] => {
    const first = i === 0
    if (piece.join === 'add') return [{ ...piece, join: 'subtract' }]
    const taken = { ...piece, inverted: piece.join === 'intersect' ? !piece.inverted : piece.inverted }
    // A first piece that subtracts or intersects starts from everything kept, so from nothing taken away.
    const clear = {
      ...taken,
      shape: { kind: 'edge', x: -1e6, y: 0, nx: 1, ny: 0 } as const,
      inverted: false,
      strength: 1,
    }
    return first
      ? [
          { ...clear, join: 'subtract' },
          { ...taken, join: 'add' },
        ]
      : [{ ...taken, join: 'add' }]
  })
}
