// The matte of a layer as a shot of its own.
import type { Layer, Shot } from './types'

/** A shot in which one layer shows nothing but white, wherever its matte lets it, its row of copies too; the others only lend it their mattes. Silent. */
export function matteShot(shot: Shot, id: string): Shot {
  const white = { kind: 'plain', colour: '#ffffff' } as const
  const silent = (layer: Layer) => ({ ...layer.sound, on: false })
  const layers = shot.layers.map(
    (layer): Layer =>
      layer.id !== id
        ? { ...layer, on: false, sound: silent(layer) }
        : {
            ...layer,
            source: { kind: 'panel', fill: white, border: null, shadow: null },
            timing: { kind: 'play', from: 0, speed: 1, mixed: null },
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
