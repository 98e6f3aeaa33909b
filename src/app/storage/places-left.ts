// Where somebody was in each shot when it was left, to go on there on the next visit.
import type { Shot } from '../../core/shot'

export interface PlaceLeft {
  frame: number
  layer: string | null
  piece: string | null
}

const KEPT = 'jolly-ghost-places'
/** Shots whose places are kept, the last ones left. */
const MOST = 50

function kept(): [id: string, place: PlaceLeft][] {
  try {
    const all: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]')
    return Array.isArray(all) ? all.filter(one => Array.isArray(one) && one.length === 2 && one[1]) : []
  } catch {
    // Without a place to keep them, or with something else there, every shot begins at its beginning.
    return []
  }
}

/** Keeps the place for the next visit; not being able to is no harm. */
export function keepPlace(id: string, place: PlaceLeft): void {
  const others = kept().filter(([other]) => other !== id)
  try {
    localStorage.setItem(KEPT, JSON.stringify([[id, place], ...others].slice(0, MOST)))
  } catch {
    // As above.
  }
}

/** Where a shot was left, as far as that is still there: else its first frame and its layer nearest the lens. */
export function placeLeft(id: string, shot: Shot): PlaceLeft {
  const left = kept().find(([other]) => other === id)?.[1]
  const frame = Number.isInteger(left?.frame) ? Math.max(0, Math.min(left!.frame, shot.length - 1)) : 0
  const layer = shot.layers.find(l => l.id === left?.layer)
  if (layer) return { frame, layer: layer.id, piece: layer.matte.find(p => p.id === left?.piece)?.id ?? null }
  const nearest = shot.layers[0]
  return { frame, layer: nearest?.id ?? null, piece: nearest?.matte[0]?.id ?? null }
}
