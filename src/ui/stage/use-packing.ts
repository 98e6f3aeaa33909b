import { packProject } from '../../app/engine/bring-in'
import { fileName, saveBlob } from '../../app/engine/exports'
import { runJob, stopJob } from '../../app/jobs/run'
import { Stopped } from '../../app/stopped'
import { jobUnderWay, projectOf, store, useStore } from '../../app/store'
import { sayProblem } from '../common/problem'

async function pack(): Promise<void> {
  const project = projectOf(store.getState())
  if (!project) return
  const name = `${fileName(project.shot.name)}.jollyghost.zip`
  try {
    const packed = await runJob({ kind: 'pack', project: project.id, name }, ({ signal, tell }) =>
      packProject(project, signal, tell),
    )
    if (!packed.ok) return sayProblem(packed.problem)
    const { file, missing } = packed.value
    saveBlob(file, name)
    const names = missing.map(take => `“${take.name}”`).join(', ')
    if (names) sayProblem(`The file was saved without ${names}, which is no longer on this machine.`)
  } catch (error) {
    if (error instanceof Stopped) return
    sayProblem(`The shot cannot be saved as a file (${error instanceof Error ? error.message : String(error)}).`)
  }
}

/** Saving the open project as a file: how far it is (0..1, null when it is not under way), how to begin, how to stop. */
export function usePacking() {
  const job = useStore(s => jobUnderWay(s.jobs, ['pack'], projectOf(s)?.id ?? null))
  return { share: job?.done ?? null, begin: () => void pack(), stop: () => job && stopJob(job.id) }
}
