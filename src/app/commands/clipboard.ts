// Layers over the clipboard, within a shot and between shots: as plain text that is checked like any file.
import { checkLayers, type Layer, type Take, usedTakes, writeLayers } from '../../core/shot'
import type { StageEngine } from '../engine/stage-engine'
import { storageProblem } from '../storage/database'
import { getMedia } from '../storage/projects'
import { edit, layersChosen, projectOf, store, takesAdded } from '../store'
import { type Command, canChange, choosingNew, hasLayer, ids, inShot, layers, shot, takes, view } from './command'
import { say } from './say'

/** The chosen layers as text. */
export function copied(): string | null {
  const chosen = layers()
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

/** Puts layers that were copied at the playhead, or says what is wrong with the text. */
export async function pasteText(text: string, stage: StageEngine): Promise<void> {
  const checked = checkLayers(text)
  if (!checked.ok) {
    say(checked.problem)
    return
  }
  if (!projectOf(store.getState())) return
  try {
    if (!(await bringTakes(checked.value.takes, stage))) return
  } catch (error) {
    say(storageProblem(error))
    return
  }
  place(checked.value.layers)
}

function place(pasted: readonly Layer[]): void {
  choosingNew(
    () => store.dispatch(edit('pasteLayers', pasted, view().frame)),
    made => store.dispatch(layersChosen(made)),
  )
}

async function write(): Promise<void> {
  const text = copied()
  if (!text) return
  try {
    await navigator.clipboard.writeText(text)
  } catch {
    say('The browser does not let the clipboard be written from a menu. Use the keys.')
  }
}

async function read(stage: StageEngine): Promise<void> {
  try {
    await pasteText(await navigator.clipboard.readText(), stage)
  } catch {
    say('The browser does not let the clipboard be read from a menu. Use the keys.')
  }
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
    run() {
      void write().then(() => store.dispatch(edit('removeLayers', ids())))
    },
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
    id: 'duplicate',
    name: 'Duplicate',
    group: 'Edit',
    keys: 'mod+d',
    applies: hasLayer,
    run: () =>
      choosingNew(
        () => store.dispatch(edit('duplicateLayers', layers())),
        made => store.dispatch(layersChosen(made)),
      ),
  },
]
