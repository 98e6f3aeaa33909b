// Saves each change within a second, and at once when the page goes away.
import type { Project } from '../../core/shot'
import { timesOpened } from '../storage/database'
import { saveProject, storageProblem, whatIsKept } from '../storage/projects'
import { projectOf, savingSet, store, unsavedTold } from '../store'

const WAIT = 300

/** Begins saving the open project; what cannot be saved is told in the store. Returns how to end it. */
export function startAutosave(): () => Promise<void> {
  let saved: Project | null = projectOf(store.getState())
  // What could not be saved is tried again with the next change, not over and over.
  let refused: Project | null = null
  let timer: ReturnType<typeof setTimeout> | null = null
  let running: Promise<void> = Promise.resolve()
  // A database that had to be opened anew may be another one, without the media.
  let known = Math.max(1, timesOpened())

  const save = async () => {
    const project = projectOf(store.getState())
    if (!project || store.getState().view.readOnly) return
    if (project === saved) {
      // What was changed has been taken back before it was written.
      store.dispatch(savingSet('saved'))
      return
    }
    try {
      await saveProject(project)
      if (timesOpened() !== known) {
        if ((await whatIsKept(project)) !== 'all') throw new Error('its takes are gone')
        known = timesOpened()
      }
      saved = project
      store.dispatch(savingSet('saved'))
    } catch (error) {
      refused = project
      store.dispatch(unsavedTold(await storageProblem(error, project)))
    }
  }
  const flush = () => {
    if (timer) clearTimeout(timer)
    timer = null
    running = running.then(save)
    return running
  }
  const unsubscribe = store.subscribe(() => {
    const project = projectOf(store.getState())
    if (!project || project === saved || project === refused || timer || store.getState().view.readOnly) return
    timer = setTimeout(flush, WAIT)
    store.dispatch(savingSet('waiting'))
  })
  const leaving = () => {
    if (document.visibilityState === 'hidden') void flush()
  }
  addEventListener('pagehide', flush)
  document.addEventListener('visibilitychange', leaving)
  return async () => {
    unsubscribe()
    removeEventListener('pagehide', flush)
    document.removeEventListener('visibilitychange', leaving)
    await flush()
  }
}
