// A shot by its address.
import type { Checked, Salvaged } from '../../core/door'
import { runJob } from '../jobs/run'
import { keepDemo, listDemos } from '../storage/demo'
import { loadProject } from '../storage/projects'

/**
 * A shot of this machine, or a demo shot, which its address alone puts among them: fetching it is a job of that shot, which can be watched and stopped. null if there is
 * neither. Throws Stopped.
 */
export async function loadShot(id: string): Promise<Checked<Salvaged> | null> {
  const kept = await loadProject(id)
  if (kept) return kept
  // Without a server there is none.
  const demo = (await listDemos().catch(() => [])).find(brought => brought.id === id)
  if (!demo) return null
  return runJob({ kind: 'fetch', project: id, name: demo.shot.name }, ({ signal, tell }) =>
    keepDemo(demo, signal, share => tell(share)),
  )
}
