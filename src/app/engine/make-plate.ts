// Stills that become takes of the open shot: a plate of takes in which people move about, and the picture as it is.
import type { Take } from '../../core/shot'
import { runJob, type Working } from '../jobs/run'
import { Stopped } from '../stopped'
import { projectOf, refusalTold, store } from '../store'
import { bringTakes } from './bring-takes'
import type { StageEngine } from './stage-engine'

/** Share of a plate that may be a guess without a word. */
const SELDOM = 0.001

/** Brings a picture in that is made by a job; what goes wrong is told, and null is what comes of it. */
async function bringMade(
  stage: StageEngine,
  name: string,
  of: number,
  make: (working: Working) => Promise<Blob>,
): Promise<Take | null> {
  const project = projectOf(store.getState())
  if (!project || store.getState().view.readOnly) return null
  try {
    const { takes, problems } = await runJob({ kind: 'bring', project: project.id, name, of }, async working => {
      const file = new File([await make(working)], `${name}.png`, { type: 'image/png' })
      return bringTakes(
        [file],
        { stage },
        working.signal,
        () => {},
        async () => null,
      )
    })
    if (problems[0]) store.dispatch(refusalTold(problems[0]))
    // One that was made before keeps its name.
    return projectOf(store.getState())?.takes.find(t => t.digest === takes[0]?.digest) ?? null
  } catch (error) {
    if (!(error instanceof Stopped)) {
      store.dispatch(
        refusalTold(`“${name}” cannot be made: ${error instanceof Error ? error.message : String(error)}.`),
      )
    }
    return null
  }
}

const plain = (name: string): string => name.replace(/\.[a-z0-9]{2,5}$/i, '')

export interface MadePlate {
  plate: Take
  /** What is to be known of it, in sentences. */
  remark: string
}

/** Makes a plate of what takes of one size show most of the time; null where none came of it. */
export async function makePlate(stage: StageEngine, takes: readonly Take[]): Promise<MadePlate | null> {
  const name = `Plate of ${takes.map(t => plain(t.name)).join(', ')}`.slice(0, 80)
  let open = 0
  const made = await bringMade(stage, name, 100, async ({ signal, tell }) => {
    const plate = await stage.plate(
      takes.map(t => t.digest),
      tell,
      signal,
    )
    open = plate.open
    return plate.png
  })
  if (!made) return null
  const known = 'Whoever never moved is in it, too: look at it.'
  if (open <= SELDOM) return { plate: made, remark: known }
  const share = `${(100 * open).toFixed(open < 0.1 ? 1 : 0)}%`
  const missing = `${share} of the set was hardly ever seen and is left clear: put another frame behind it in the shot, and keep that picture as a still.`
  return { plate: made, remark: `${known} ${missing}` }
}

/** Tells of a plate, and where it is to be found. */
export const toldOf = ({ plate, remark }: MadePlate, where = 'is among the takes'): string =>
  `“${plate.name}” ${where}. ${remark}`

/** Makes a still of the picture at a frame, as large as the shot; returns what there is to say of it, or null where none came of it. */
export async function keepPicture(stage: StageEngine, frame: number): Promise<string | null> {
  const name = `${projectOf(store.getState())?.shot.name ?? ''} ${frame + 1}`
  const made = await bringMade(stage, name, 1, () => stage.png(frame))
  return made && `“${made.name}” is among the takes.`
}
