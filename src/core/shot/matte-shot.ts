// The matte of a layer as a shot of its own.
import type { Layer, Shot } from './types'

/** White where a layer of a shot is kept, black where it is not, its row of copies too; whatever else there is, is left out. Silent. */
export function matteShot(shot: Shot, { id }: Pick<Layer, 'id'>): Shot {
  const white = { kind: 'plain', colour: '#ffffff' } as const
  const layers = shot.layers
    .filter(layer => layer.id === id)
    .map(
      (layer): Layer => ({
        ...layer,
        source: { kind: 'panel', fill: white, border: null, shadow: null },
        timing: { kind: 'play', from: 0, speed: 1, mixed: null },
        opacity: 1,
        fade: { in: 0, out: 0 },
        blend: 'normal',
        looks: [],
        copies: layer.copies && { ...layer.copies, keep: 1 },
        sound: { ...layer.sound, on: false },
        on: true,
      }),
    )
  return { ...shot, backdrop: '#000000', layers }
}
