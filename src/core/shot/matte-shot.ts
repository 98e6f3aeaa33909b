// The matte of a layer as a shot of its own.
import type { Layer, Shot } from './types'

/** A shot in which one layer shows nothing but white, wherever its matte lets it, its row of copies too; the others only lend it their mattes. Silent. */
export function matteShot(shot: Shot, id: string): Shot {
  const plain = { kind: 'panel', fill: { kind: 'plain', colour: '#ffffff' }, border: null, shadow: null } as const
  const always = { kind: 'play', from: 0, speed: 1, mixed: null } as const
  const silent = (layer: Layer) => ({ ...layer.sound, on: false })
  const layers = shot.layers.map(
    (layer): Layer =>
      layer.id !== id
        ? { ...layer, on: false, sound: silent(layer) }
        : {
            ...layer,
            // What is computed from a take's pictures needs them; a matte that is not stays the same.
            ...(layer.source.kind !== 'take' && { source: plain, timing: always }),
            opacity: 1,
            fade: { in: 0, out: 0 },
            blend: 'normal',
            looks: [],
            copies: layer.copies && { ...layer.copies, keep: 1 },
            sound: silent(layer),
            on: true,
          },
  )
  return { ...shot, backdrop: '#000000', layers }
}
