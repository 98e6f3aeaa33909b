import { beforeEach, describe, expect, it } from 'vitest'
import { testLayer, testProject } from '../testing/documents'
import { COMMANDS, commandOf, shownKeys } from './commands'
import type { StageEngine } from './engine/stage-engine'
import { layerChosen, opened, shotOf, store, undo, viewReset } from './store'

const went: (number | string)[] = []
const stage: StageEngine = {
  addFiles: async () => [],
  goTo: frame => void went.push(frame),
  play: async () => void went.push('play'),
  stop: () => void went.push('stop'),
  png: async () => new Blob(),
  thumbnail: async () => ({}) as ImageBitmap,
  dropped: () => 0,
  end: async () => {},
}
const run = (id: string) => commandOf(id).run(stage)
const shot = () => shotOf(store.getState())!
const layers = () => shot().layers.map(l => l.id)

beforeEach(() => {
  went.length = 0
  store.dispatch(viewReset({ layer: 'layer-1', frame: 20 }))
  store.dispatch(opened(testProject([testLayer(0), testLayer(1), testLayer(2)])))
})

describe('commands', () => {
  it('each have a name and a shortcut of their own', () => {
    for (const field of ['id', 'name', 'keys'] as const) {
      const all = COMMANDS.flatMap(c => c[field].split(field === 'keys' ? ', ' : '\n'))
      expect(new Set(all).size).toBe(all.length)
    }
    expect(shownKeys('mod+shift+z, mod+y')).toBe('Ctrl Shift Z')
    expect(() => commandOf('dance')).toThrow('dance')
  })

  it('move in time', () => {
    for (const id of ['forward', 'back', 'forward-ten', 'back-ten', 'start', 'end']) run(id)
    expect(went).toEqual([21, 19, 30, 10, 0, 99])
    run('play')
    store.dispatch(viewReset({ playing: true }))
    run('play')
    expect(went.slice(6)).toEqual(['play', 'stop'])
  })

  it('choose and move layers in depth and time', () => {
    run('farther-layer')
    expect(store.getState().view.layer).toBe('layer-2')
    run('farther-layer')
    run('nearer-layer')
    run('nearer-layer')
    expect(store.getState().view.layer).toBe('layer-0')
    run('farther')
    expect(layers()).toEqual(['layer-1', 'layer-0', 'layer-2'])
    run('nearer')
    expect(layers()).toEqual(['layer-0', 'layer-1', 'layer-2'])
    run('later')
    run('later')
    run('earlier')
    expect(shot().layers[0]!.span).toEqual({ from: 1, to: 101 })
  })

  it('lay pieces on the chosen layer, hide it, take its matte away', () => {
    for (const kind of ['edge', 'box', 'oval']) run(kind)
    const layer = () => shot().layers[1]!
    expect(layer().matte.map(p => p.shape.kind)).toEqual(['edge', 'box', 'oval'])
    expect(store.getState().view.piece).toBe(layer().matte[2]!.id)
    run('matte')
    run('hide')
    expect(layer()).toMatchObject({ matteOn: false, on: false })
    for (let i = 0; i < 5; i++) store.dispatch(undo())
    expect(layer()).toMatchObject({ matteOn: true, on: true, matte: [] })
  })

  it('that need a layer do not apply without one', () => {
    store.dispatch(layerChosen(null))
    expect(COMMANDS.filter(c => c.applies && !c.applies()).map(c => c.group)).toEqual(Array(9).fill('Layer'))
    run('edge')
    expect(shot().layers.every(l => l.matte.length === 0)).toBe(true)
  })
})
