// Layers as text: what goes over a clipboard, and what may come back from one.

import { LIMITS } from '../shot/limits'
import { makeProject } from '../shot/make'
import { FORMAT, type Layer, type Take, VERSION } from '../shot/types'
import type { Checked } from './checked'
import { parseProject } from './validate'

const KIND = 'jolly-ghost-layers'

/** Layers with the takes that they use. */
export interface LayerSheet {
  layers: Layer[]
  takes: Take[]
}

export function writeLayers(layers: readonly Layer[], takes: readonly Take[]): string {
  return JSON.stringify({ kind: KIND, version: VERSION, layers, takes })
}

const refuse = (problem: string): Checked<LayerSheet> => ({ ok: false, problem })

/** Reads copied layers from any text. The problem is a sentence. */
export function checkLayers(text: string): Checked<LayerSheet> {
  if (text.length > LIMITS.json) return refuse('What is on the clipboard is larger than any layers.')
  let data: { kind?: unknown; version?: unknown; layers?: unknown; takes?: unknown } | null
  try {
    data = JSON.parse(text)
  } catch {
    return refuse('There are no layers on the clipboard. Copy some from a shot first.')
  }
  if (typeof data !== 'object' || data === null || data.kind !== KIND) {
    return refuse('There are no layers on the clipboard. Copy some from a shot first.')
  }
  // Held to what a project may hold, by being put into one.
  const { shot } = makeProject([EMPTY], 'pasted')
  const project = {
    format: FORMAT,
    version: data.version,
    id: 'pasted',
    takes: data.takes,
    shot: { ...shot, layers: data.layers },
  }
  const checked = parseProject(JSON.stringify(project))
  if (!checked.ok) return refuse(`The layers on the clipboard cannot be used. ${checked.problem}`)
  if (checked.value.shot.layers.length === 0) return refuse('There are no layers on the clipboard.')
  return { ok: true, value: { layers: checked.value.shot.layers, takes: checked.value.takes } }
}

const EMPTY: Take = {
  digest: '0'.repeat(64),
  name: 'nothing',
  type: 'video/mp4',
  bytes: 1,
  picture: null,
  sound: null,
  marked: null,
  acts: [],
}
