// One project open in this tab: held against other tabs, loaded, on the stage, saved as it changes.

import type { Project } from '../../core/shot'
import { stopJobsOf } from '../jobs/run'
import { hold } from '../storage/locks'
import { keepPlace, placeLeft } from '../storage/places-left'
import { projectMedia, savePoster } from '../storage/projects'
import { closed, opened, projectOf, store, takesMissing, viewReset } from '../store'
import { startAutosave } from './autosave'
import { type CutOuts, startCutOuts } from './cut-outs'
import { type Derived, startDerived } from './derived'
import { loadShot } from './load-shot'
import { plateThreads } from './plate-threads'
import { type Reports, startReports } from './reports'
import { type StageEngine, startStage } from './stage-engine'

export interface Session {
  stage: StageEngine
  derived: Derived
  cutOuts: CutOuts
  reports: Reports
  /** Resolves when all is let go of. */
  closed: Promise<void>
  close(): Promise<void>
}

const POSTER_WIDTH = 640

async function makePoster(stage: StageEngine): Promise<void> {
  const project = projectOf(store.getState())
  if (!project || store.getState().view.readOnly) return
  const bitmap = await stage.thumbnail(store.getState().view.frame, null, POSTER_WIDTH)
  if (!bitmap) return
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height)
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0)
  await savePoster(project.id, await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 }))
}

// The session before, until it has let go of the store and its lock: one that opens meanwhile would be closed with it.
let before: Promise<void> = Promise.resolve()

/** Resolves when no session is open or closing any more, so that what was last changed is saved. */
export const sessionsClosed = (): Promise<void> => before

/** Opens a project on a canvas, once the one before is closed. A sentence is returned where it cannot be opened. */
export function openSession(...args: Parameters<typeof open>): Promise<Session | string> {
  const opening = before.then(() => open(...args))
  before = opening.then(
    session => (typeof session === 'string' ? undefined : session.closed),
    () => {},
  )
  return opening
}

async function open(
  id: string,
  canvas: HTMLCanvasElement,
  onProblem: (sentence: string) => void,
): Promise<Session | string> {
  // What has begun, each with how it is ended; the last is ended first.
  const begun: (() => unknown)[] = []
  const end = async () => {
    for (const one of begun.reverse()) {
      try {
        await one()
      } catch (error) {
        // Whatever does not end well keeps nothing else from ending.
        console.error('Something did not close:', error)
      }
    }
  }
  const refused = async (sentence: string) => {
    await end()
    return sentence
  }
  try {
    const plates = plateThreads()
    begun.push(() => plates.end())
    // Its thread wakes while the shot is fetched; whether it could is asked below.
    const staging = startStage(canvas, plates, onProblem)
    begun.push(() =>
      staging.then(
        engine => engine.end(),
        () => {},
      ),
    )
    staging.catch(() => {})
    const loaded = await loadShot(id)
    if (!loaded) return refused('There is no such shot on this machine.')
    if (!loaded.ok) return refused(`This shot cannot be opened. ${loaded.problem}`)
    const { project, aside } = loaded.value
    const release = await hold(`project ${id}`)
    begun.push(() => release?.())
    store.dispatch(opened(project))
    begun.push(() => store.dispatch(closed()))
    store.dispatch(
      viewReset({
        readOnly: release === null,
        aside,
        ...placeLeft(id, project.shot),
      }),
    )
    if (release) void navigator.storage.persist?.().catch(() => false)
    const derived = startDerived(id, onProblem)
    begun.push(() => derived.end())
    const cutOuts = startCutOuts(id, plates, onProblem)
    begun.push(() => cutOuts.end())
    const reports = startReports(id, plates)
    begun.push(() => reports.end())
    begun.push(() => stopJobsOf(id, ['bring', 'convert']))
    const [engine, { files, missing }] = await Promise.all([staging, projectMedia(project, 'all')])
    const stage: StageEngine = {
      ...engine,
      addFiles(files) {
        derived.addFiles(files)
        plates.addFiles(files)
        cutOuts.begin()
        return engine.addFiles(files)
      },
    }
    const stopSaving = startAutosave()
    begun.push(stopSaving)
    const failed = await stage.addFiles(files)
    store.dispatch(takesMissing(missing.map(t => t.digest)))
    for (const { name } of missing) onProblem(`The take “${name}” is no longer on this machine. Its layers stay empty.`)
    for (const { reason } of failed) onProblem(reason)
    begun.push(startPosters(stage))
    begun.push(startKeepingPlace(id))
    reports.recall().catch(error => console.error('What takes said cannot be recalled:', error))
    let letGo = () => {}
    const gone = new Promise<void>(resolve => {
      letGo = resolve
    })
    const close = () => end().finally(letGo)
    return { stage, derived, cutOuts, reports, closed: gone, close }
  } catch (error) {
    await end()
    throw error
  }
}

/** Keeps where one is in the shot when the page is left or the shot closed; returns how to stop, which keeps it as well. */
function startKeepingPlace(id: string): () => void {
  const keep = () => {
    const { frame, layer, piece, into } = store.getState().view
    if (into.length === 0) keepPlace(id, { frame, layer, piece })
  }
  addEventListener('pagehide', keep)
  return () => {
    removeEventListener('pagehide', keep)
    keep()
  }
}

/** Keeps the shot's picture up to date while it is open; returns how to stop. */
function startPosters(stage: StageEngine): () => void {
  let posted: Project | null = null
  const post = () => {
    const now = projectOf(store.getState())
    if (now === posted || store.getState().view.playing || store.getState().view.take) return
    posted = now
    makePoster(stage).catch(error => console.error('No poster could be made:', error))
  }
  post()
  const timer = setInterval(post, 3000)
  return () => clearInterval(timer)
}
