// The treatments of a layer's picture.
import type { Look } from '../../look'
import { LIMITS } from '../limits'
import type { Shot } from '../types'
import { editableLayer } from './find'

export function addLook(shot: Shot, layer: string, look: Look): void {
  const found = editableLayer(shot, layer)
  if (found && found.looks.length < LIMITS.looks) found.looks.push(look)
}

export function removeLook(shot: Shot, layer: string, look: string): void {
  const found = editableLayer(shot, layer)
  if (found) found.looks = found.looks.filter(l => l.id !== look)
}

export function switchLook(shot: Shot, layer: string, look: string, on: boolean): void {
  const found = editableLayer(shot, layer)?.looks.find(l => l.id === look)
  if (found) found.on = on
}

/** Moves a look to another place in the list; what comes first is done first. */
export function moveLook(shot: Shot, layer: string, look: string, to: number): void {
  const found = editableLayer(shot, layer)
  const at = found?.looks.findIndex(l => l.id === look) ?? -1
  if (!found || at < 0) return
  const [moved] = found.looks.splice(at, 1)
  found.looks.splice(Math.max(0, Math.min(found.looks.length, Math.round(to) || 0)), 0, moved!)
}
