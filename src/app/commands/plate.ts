// Plates made of takes, and pictures kept as stills.
import { asTake, type Layer, momentAt, type Take } from '../../core/shot'
import { keepPicture, makePlate, toldOf } from '../engine/make-plate'
import type { StageEngine } from '../engine/stage-engine'
import { runJob } from '../jobs/run'
import { orAborted } from '../jobs/thread'
import { Stopped } from '../stopped'
import { edit, projectOf, refusalTold, store } from '../store'
import { type Command, chosen, inShot, layers, one, shot, takes, view } from './command'
import { tell } from './say'

const canBring = (): boolean => inShot() && !view().readOnly

/** The films that the chosen layers show, each once. */
function filmsChosen(): Take[] {
  const shown = new Set(layers().map(l => asTake(l.source)?.digest))
  return takes().filter(t => shown.has(t.digest) && t.picture?.kind === 'film')
}

const told = async (made: Promise<string | null>): Promise<void> => {
  const sentence = await made
  if (sentence) tell(sentence)
}

/** The film that a layer shows playing at the playhead, and the moment of it. */
function playing(layer: Layer): { take: string; seconds: number } | null {
  const { frame } = view()
  const source = asTake(layer.source)
  const isFilm = takes().some(t => t.digest === source?.digest && t.picture?.kind === 'film')
  const isHere = layer.on && layer.span.from <= frame && frame < layer.span.to
  if (!source || source.use === 'sound' || !isFilm || !isHere || layer.timing.kind === 'freeze') return null
  const { seconds } = momentAt(layer.timing, frame - layer.span.from, shot()!.rate)
  return { take: source.digest, seconds: Math.max(0, seconds) }
}

/** The footage that stands next to a layer, the nearer one first. */
function beside(layer: Layer): { take: string; seconds: number } | null {
  const all = shot()?.layers ?? []
  const at = all.indexOf(layer)
  for (let away = 1; away < all.length; away++) {
    for (const next of [all[at - away], all[at + away]]) {
      const found = next && playing(next)
      if (found) return found
    }
  }
  return null
}

/** Gives the chosen layer the grain that it lacks beside footage. */
async function matchGrain(stage: StageEngine): Promise<void> {
  const layer = chosen()
  const next = layer && beside(layer)
  if (!layer || !next) return
  const own = playing(layer)
  const project = projectOf(store.getState())
  if (!project) return
  try {
    const order = {
      kind: 'compare',
      project: project.id,
      name: layer.name,
      detail: 'Measuring the grain',
      of: 2,
    } as const
    const [grain, has] = await runJob(order, ({ signal, tell: done }) =>
      orAborted(signal, async () => {
        const grain = await stage.grain(next.take, next.seconds)
        done(1)
        return [grain, own && (await stage.grain(own.take, own.seconds))]
      }),
    )
    // Chosen away meanwhile: it is about another one.
    if (grain && chosen()?.id === layer.id) store.dispatch(edit('matchGrain', layer.id, grain, has))
  } catch (error) {
    if (error instanceof Stopped) return
    store.dispatch(refusalTold(`Its grain cannot be told: ${error instanceof Error ? error.message : String(error)}.`))
  }
}

export const PLATE: readonly Command[] = [
  {
    id: 'match-grain',
    name: 'Give it the grain of the footage beside it',
    group: 'Picture',
    applies: () => one() && beside(chosen()!) !== null,
    run: stage => void matchGrain(stage),
  },
  {
    id: 'make-plate',
    name: 'Make a plate of its take, without whoever is in it',
    group: 'Take',
    applies: () => canBring() && filmsChosen().length > 0,
    run: stage => void told(makePlate(stage, filmsChosen()).then(made => made && toldOf(made))),
  },
  {
    id: 'keep-picture',
    name: 'Keep this picture as a still among the takes',
    group: 'Take',
    applies: canBring,
    run: stage => void told(keepPicture(stage, view().frame)),
  },
]
