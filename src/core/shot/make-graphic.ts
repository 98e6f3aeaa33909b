// New layers of what is drawn instead of filmed: they last as long as the shot.
import { initialNumbers } from '../keys'
import { LETTERING } from '../source/lettering'
import { blankLayer, makePiece, makeShape } from './make'
import type { Layer, Shape, Shot, Source } from './types'

const drawn = (source: Source, name: string, { size, length }: Shot): Layer => ({
  ...blankLayer(source, size, size),
  name,
  span: { from: 0, to: length },
  sound: { on: false, gain: 1, fade: { in: 0, out: 0 } },
})

/** Letters in the middle of the frame, an eighth as high as that. */
export function makeLettering(shot: Shot, text: string, fonts: readonly string[]): Layer {
  const source: Source = {
    kind: 'lettering',
    text,
    fonts: [...fonts],
    axes: {},
    align: 'middle',
    fill: { kind: 'plain', colour: '#f4efe6' },
    border: null,
    shadow: null,
    values: { ...initialNumbers(LETTERING.values!), size: Math.max(1, Math.round(shot.size.height / 6)) },
  }
  const { width, height } = shot.size
  return {
    ...drawn(source, letteringName(text), shot),
    anchor: { x: 0, y: 0 },
    place: { x: width / 2, y: height / 2, scale: 1, angle: 0 },
  }
}

/** What a layer of letters is called: what its first line says. */
export const letteringName = (text: string): string => text.trim().split('\n')[0]!.slice(0, 40) || 'Lettering'

/** A colour over the whole frame, or in a shape in the middle of it. */
export function makePanel(shot: Shot, shape: Shape['kind'] | null): Layer {
  const source: Source = { kind: 'panel', fill: { kind: 'plain', colour: '#3a3733' }, border: null, shadow: null }
  const layer = drawn(source, 'Panel', shot)
  return shape ? { ...layer, matte: [makePiece(makeShape(shape, shot.size))] } : layer
}
