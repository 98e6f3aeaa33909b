// Layers over the clipboard, within a shot and between shots: as plain text that is checked like any file.
import { checkLayers, writeLayers } from '../../core/door'
import { outlinesIn, svgOf } from '../../core/exchange'
import { type OutlinePoint, roundOutlinePoint } from '../../core/outline'
import { SHAPES, shapeAt } from '../../core/shape'
import { edits, LIMITS, makePiece, newId, type Take, usedTakes } from '../../core/shot'
import type { StageEngine } from '../engine/stage-engine'
import { getMedia } from '../storage/projects'
import { edit, editIn, pieceChosen, projectOf, store, takesAdded } from '../store'
import {
  type Command,
  canChange,
  choosingNew,
  chosen,
  hasLayer,
  ids,
  inShot,
  layers,
  one,
  shot,
  takes,
  view,
} from './command'
import { removeLayers } from './remove'
import { say } from './say'

/** The chosen layers as text; null where nothing is chosen, or a take is looked at instead. */
export function copied(): string | null {
  const chosen = inShot() ? layers() : []
  const open = shot()
  if (chosen.length === 0 || !open) return null
  const used = usedTakes({ ...open, layers: chosen })
  return writeLayers(
    chosen,
    takes().filter(t => used.has(t.digest)),
  )
}

async function bringTakes(needed: readonly Take[], stage: StageEngine): Promise<boolean> {
  const known = new Set(takes().map(t => t.digest))
  const fresh = needed.filter(t => !known.has(t.digest))
  const files = await Promise.all(
    fresh.map(async take => ({ digest: take.digest, name: take.name, blob: await getMedia(take.digest) })),
  )
  const gone = files.find(f => !f.blob)
  if (gone) {
    say(`The take “${gone.name}” is not on this machine. Bring it in first, then paste again.`)
    return false
  }
  if (fresh.length > 0) {
    store.dispatch(takesAdded(fresh))
    await stage.addFiles(files.map(f => ({ ...f, blob: f.blob! })))
  }
  return true
}

/** Makes pieces of the chosen layer's matte of outlines. */
function pasteOutlines(outlines: readonly OutlinePoint[][]): void {
  const layer = one() ? chosen() : null
  const room = LIMITS.pieces - (layer?.matte.length ?? 0)
  if (!layer) say('Choose a layer first: outlines become pieces of its matte.')
  else if (outlines.length > room || outlines.some(o => o.length > LIMITS.points))
    say(`These are too many outlines, or too long ones: ${room} more pieces of up to ${LIMITS.points} points fit.`)
  else {
    const gesture = newId()
    const pieces = outlines.map(points => makePiece({ kind: 'outline', points: points.map(roundOutlinePoint) }))
    for (const piece of pieces) store.dispatch(editIn(gesture, 'addPiece', layer.id, piece))
    store.dispatch(pieceChosen({ layer: layer.id, piece: pieces[0]!.id }))
  }
}

/** Puts layers that were copied at the playhead, makes pieces of paths of SVG, or says what is wrong with the text. */
export async function pasteText(text: string, stage: StageEngine): Promise<void> {
  const outlines = outlinesIn(text)
  if (outlines) {
    pasteOutlines(outlines)
    return
  }
  const checked = checkLayers(text)
  if (!checked.ok) {
    say(checked.problem)
    return
  }
  if (!projectOf(store.getState())) return
  try {
    if (!(await bringTakes(checked.value.takes, stage))) return
  } catch (error) {
    say(`The takes of these layers cannot be read (${error instanceof Error ? error.message : String(error)}).`)
    return
  }
  if (!choosingNew(() => store.dispatch(edit('pasteLayers', checked.value.layers, view().frame)))) {
    say('These layers cannot be pasted here: there would be too many, or groups would lie too deep in each other.')
  }
}

/** Whether the chosen layers now lie on the clipboard. */
async function write(): Promise<boolean> {
  const text = copied()
  if (!text) return false
  try {
    await navigator.clipboard.writeText(text)
    return true
  } catch {
    say('The browser does not let the clipboard be written from a menu. Use the keys.')
    return false
  }
}

/** The chosen piece as it is at the playhead, as a drawing with one path; null where it is no outline and cannot be one. */
function pathOf(): string | null {
  const layer = chosen()
  const open = shot()
  const piece = layer?.matte.find(p => p.id === view().piece)
  if (!layer || !piece || !open) return null
  const size = edits.layerSize(layer, open, takes())
  const { outlined, isDrawn = false, isOpen = false } = SHAPES[piece.shape.kind]
  if (!outlined && !isDrawn) return null
  const value = shapeAt(piece.shape, view().frame)
  return svgOf(outlined ? outlined(value, size) : (value as OutlinePoint[]), isOpen, size)
}

async function copyPath(): Promise<void> {
  const path = pathOf()
  try {
    if (path) await navigator.clipboard.writeText(path)
  } catch {
    say('The browser does not let the clipboard be written.')
  }
}

async function cut(): Promise<void> {
  const gone = ids()
  if (await write()) removeLayers(gone)
}

async function read(stage: StageEngine): Promise<void> {
  let text: string
  try {
    text = await navigator.clipboard.readText()
  } catch {
    say('The browser does not let the clipboard be read from a menu. Use the keys.')
    return
  }
  await pasteText(text, stage)
}

export const CLIPBOARD: readonly Command[] = [
  { id: 'copy', name: 'Copy', group: 'Edit', keys: 'mod+c', native: true, applies: hasLayer, run: () => void write() },
  {
    id: 'cut',
    name: 'Cut out',
    group: 'Edit',
    keys: 'mod+x',
    native: true,
    applies: canChange,
    run: () => void cut(),
  },
  {
    id: 'paste',
    name: 'Paste at the playhead',
    group: 'Edit',
    keys: 'mod+v',
    native: true,
    applies: inShot,
    run: s => void read(s),
  },
  {
    id: 'copy-path',
    name: 'Copy the piece as a path (SVG)',
    group: 'Edit',
    applies: () => one() && pathOf() !== null,
    run: () => void copyPath(),
  },
  {
    id: 'duplicate',
    name: 'Duplicate',
    group: 'Edit',
    keys: 'mod+d',
    applies: hasLayer,
    run: () => void choosingNew(() => store.dispatch(edit('duplicateLayers', layers()))),
  },
]
