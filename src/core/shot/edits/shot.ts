// The shot itself: name, marks, size, rate and length.
import { scaling } from '../../affine'
import { fps, type Rate } from '../../time'
import { LIMITS } from '../limits'
import type { Layer, Mark, Shot, Size } from '../types'
import { carriedPiece, carryValue, spreadLayerKeys, valuePaths } from '../values'

export function renameShot(shot: Shot, name: string): void {
  shot.name = name.slice(0, LIMITS.name)
}

/** Sets the word at a frame; there is one mark a frame. */
export function putMark(shot: Shot, frame: number, text: string): void {
  const marks: Mark[] = shot.marks.filter(m => m.frame !== frame)
  if (marks.length >= LIMITS.marks || frame < 0 || frame >= shot.length) return
  shot.marks = [...marks, { frame, text: text.slice(0, LIMITS.name) }].sort((a, b) => a.frame - b.frame)
}

export function dropMark(shot: Shot, frame: number): void {
  shot.marks = shot.marks.filter(m => m.frame !== frame)
}

/** Moves a mark; `began` are the marks as they were when a drag began, so that those passed on the way come back. */
export function slideMark(shot: Shot, from: number, to: number, began: readonly Mark[]): void {
  const moved = began.find(m => m.frame === from)
  if (!moved) return
  const frame = Math.max(0, Math.min(Math.round(to), shot.length - 1))
  const rest = began.filter(m => m.frame !== from && m.frame !== frame)
  shot.marks = [...rest, { ...moved, frame }].sort((a, b) => a.frame - b.frame)
}

export interface ShotForm {
  size: Size
  rate: Rate
  length: number
  /** Whether layers grow and shrink with the frame; else they keep their px, about the middle. */
  grow: boolean
}

/** Px of the shot, at another scale about the middle. Pieces pinned to the layer go with its place. */
function resizeLayer(layer: Layer, from: Size, to: Size, by: number): void {
  const map = scaling(by, (to.width - from.width * by) / 2, (to.height - from.height * by) / 2)
  for (const path of valuePaths(layer)) if (!('piece' in path)) carryValue(layer, path, map)
  layer.matte = layer.matte.map(piece => (piece.pinnedTo === 'shot' ? carriedPiece(piece, map) : piece))
  if (layer.copies) layer.copies = { ...layer.copies, x: layer.copies.x * by, y: layer.copies.y * by }
}

/** Moves spans, keys, fades and loops to another rate, so that everything happens at the second it did. */
function retimeLayer(layer: Layer, factor: number): void {
  const at = (frame: number) => Math.round(frame * factor)
  spreadLayerKeys(layer, 0, factor, 'all')
  const from = at(layer.span.from)
  layer.span = { from, to: Math.max(from + 1, at(layer.span.to)) }
  const fade = (f: { in: number; out: number }) => ({ in: at(f.in), out: at(f.out) })
  layer.fade = fade(layer.fade)
  layer.sound.fade = fade(layer.sound.fade)
  if (layer.copies) layer.copies = { ...layer.copies, later: at(layer.copies.later) }
  if (layer.timing.kind === 'loop')
    layer.timing = { ...layer.timing, begun: at(layer.timing.begun), over: at(layer.timing.over) }
}

/** Gives the shot another size, rate and length. The length is told in frames of the new rate. */
export function reformShot(shot: Shot, form: ShotForm): void {
  const { size, rate, length, grow } = form
  const factor = fps(rate) / fps(shot.rate)
  if (factor !== 1) {
    for (const layer of shot.layers) retimeLayer(layer, factor)
    shot.marks = [
      ...new Map(
        shot.marks.map(m => [Math.round(m.frame * factor), { ...m, frame: Math.round(m.frame * factor) }]),
      ).values(),
    ]
  }
  if (size.width !== shot.size.width || size.height !== shot.size.height) {
    const by = grow ? Math.min(size.width / shot.size.width, size.height / shot.size.height) : 1
    for (const layer of shot.layers) resizeLayer(layer, shot.size, size, by)
  }
  shot.size = { ...size }
  shot.rate = { ...rate }
  shot.length = Math.max(1, Math.min(LIMITS.length, Math.round(length)))
  shot.marks = shot.marks.filter(m => m.frame < shot.length)
}

/** What a change of form does to the layers, in sentences for whoever is about to do it. */
export function reformTold(shot: Shot, { size, rate, length, grow }: ShotForm): string[] {
  const sentences: string[] = []
  if (size.width !== shot.size.width || size.height !== shot.size.height) {
    sentences.push(
      grow
        ? 'Every layer grows or shrinks with the frame, about its middle.'
        : 'Layers keep their size and lie about the middle of the new frame; what lies outside is not seen.',
    )
  }
  const factor = fps(rate) / fps(shot.rate)
  if (factor !== 1) {
    sentences.push(
      'Spans, keys, fades and marks stay at the second where they are, on the nearest frame of the new rate.',
    )
  }
  const cut = shot.layers.filter(l => Math.round(l.span.to * factor) > length)
  const gone = cut.filter(l => Math.round(l.span.from * factor) >= length)
  if (length < Math.round(shot.length * factor) && cut.length > 0) {
    sentences.push(
      `${cut.length === 1 ? `“${cut[0]!.name}” reaches` : `${cut.length} layers reach`} beyond the new end: what is there is kept, but not shown${gone.length > 0 ? `, ${gone.length === 1 ? `“${gone[0]!.name}”` : `${gone.length} of them`} not at all` : ''}.`,
    )
  }
  return sentences.length > 0 ? sentences : ['Nothing changes for the layers.']
}
