// Saves each change within a second, and at once when the page goes away.
import type { Project } from '../../core/shot'
import { storageProblem } from '../storage/database'
import { saveProject } from '../storage/projects'
import { projectOf, savingSet, store } from '../store'

const WAIT = 300

/** Begins saving the open project; `onProblem` is told once a change cannot be saved. Returns how to end it. */
export function startAutosave(onProblem: (sentence: string) => void): () => Promise<void> {
  let saved: Project | null = projectOf(store.getState())
  // What could not be saved is tried again with the next change, not over and over.
  let refused: Project | null = null
  let timer: ReturnType<typeof setTimeout> | null = null
  let running: Promise<void> = Promise.resolve()

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
      saved = project
      store.dispatch(savingSet('saved'))
    } catch (error) {
      refused = project
      store.dispatch(savingSet('failed'))
      onProblem(storageProblem(error))
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
