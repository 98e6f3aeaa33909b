// A shot on its way to a worker: only the layers that have changed since it was last sent go along.
import type { Layer, Shot } from '../core/shot'

export interface ShotChanges {
  shot: Omit<Shot, 'layers'>
  /** Every layer's id, nearest the lens first. */
  order: string[]
  changed: Layer[]
}

/** Remembers what was sent. Layers that are the same object are not sent again. */
export function shotSender(): (shot: Shot) => ShotChanges {
  let sent = new Map<string, Layer>()
  return ({ layers, ...shot }) => {
    const changed = layers.filter(layer => sent.get(layer.id) !== layer)
    sent = new Map(layers.map(layer => [layer.id, layer]))
    return { shot, order: layers.map(layer => layer.id), changed }
  }
}

/** Puts shots together again, in the order in which they were sent. */
export function shotReceiver(): (changes: ShotChanges) => Shot {
  let known = new Map<string, Layer>()
  return ({ shot, order, changed }) => {
    const fresh = new Map(changed.map(layer => [layer.id, layer]))
    const layers = order.map(id => fresh.get(id) ?? known.get(id)!)
    known = new Map(layers.map(layer => [layer.id, layer]))
    return { ...shot, layers }
  }
}
