import { beforeEach, describe, expect, it } from 'vitest'
import { momentAt, type Timing } from '../../core/shot'
import { testLayer, testProject, testTake } from '../../testing/documents'
import { placeTake } from '../engine/place'
import type { StageEngine } from '../engine/stage-engine'
import {
  edit,
  lanesMeasured,
  lanesZoomed,
  layerChosen,
  layersChosen,
  opened,
  shotOf,
  store,
  undo,
  viewReset,
} from '../store'
import { COMMANDS, commandOf, shownKeys } from '.'
import { copied, pasteText } from './clipboard'
import { onSaying } from './say'

const went: (number | string)[] = []
const stage: StageEngine = {
  addFiles: async () => [],
  goTo: frame => void went.push(frame),
  play: async () => void went.push('play'),
  stop: () => void went.push('stop'),
  findWorst: async () => null,
  grain: async () => null,
  plate: async () => ({ png: new Blob(), open: 0 }),
  follow: async () => ({ moved: [], rate: null }),
  holdAgainst: async () => ({ frames: [], lights: [], line: null, bend: null, side: 'unclear', left: [], feather: 0 }),
  lean: async (_frame, _layer, points) => points,
  letters: async () => null,
  png: async () => new Blob(),
  thumbnail: async () => ({}) as ImageBitmap,
  levels: () => [0, 0],
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

it('says why a bar that shows all of its take cannot be slipped, and slips one that does not', () => {
  const said: string[] = []
  onSaying(sentence => said.push(sentence))
  run('slip-on')
  expect(said).toEqual(['“take-1” shows all of its take, so there is nothing to slip. Trim an end of the bar first.'])
  store.dispatch(edit('trimLayers', 'to', [{ layer: 'layer-1', frame: 50 }], testProject().takes))
  run('slip-on')
  expect(said).toHaveLength(1)
  expect(momentAt(shot().layers[1]!.timing as Timing, 0, shot().rate).seconds).toBeGreaterThan(0)
  onSaying(() => {})
})

it('gives a take that is placed again a name of its own', () => {
  placeTake(testTake(1), {})
  placeTake(testTake(1), {})
  expect(shot().layers.map(l => l.name)).toEqual(['take-1, 3', 'take-1, 2', 'take-0', 'take-1', 'take-2'])
})

it('folds parts away one by one and all at once, and brings them back as they were', () => {
  const folded = () => store.getState().room.folded
  run('fold-lanes')
  expect(folded()).toEqual(['lanes'])
  run('only-picture')
  expect(folded()).toHaveLength(3)
  run('only-picture')
  expect(folded()).toEqual(['lanes'])
  run('fold-lanes')
  expect(folded()).toEqual([])
})

describe('commands', () => {
  it('each have a name and a shortcut of their own', () => {
    for (const field of ['id', 'name', 'keys'] as const) {
      const all = COMMANDS.flatMap(c => c[field]?.split(field === 'keys' ? ', ' : '\n') ?? [])
      expect(new Set(all).size).toBe(all.length)
    }
    expect(shownKeys('mod+shift+z, mod+y')).toBe('Ctrl Shift Z')
    expect(() => commandOf('dance')).toThrow('dance')
  })

  it('go into a group and out of it at the moment that is shown, however its time runs', () => {
    run('group')
    const id = shot().layers.find(l => l.source.kind === 'group')!.id
    for (const [timing, inside] of [
      [{ kind: 'play', from: 0, speed: 2, mixed: null }, 40],
      [{ kind: 'play', from: 1, speed: 0.5, mixed: null }, 35],
      [{ kind: 'freeze', at: 2 }, 50],
      [{ kind: 'loop', from: 0, to: 0.4, style: 'cut', over: 0, speed: 1, begun: 0 }, 0],
    ] as const) {
      const project = testProject([
        { ...shot().layers.find(l => l.id === id)!, timing: timing as Timing, span: { from: 0, to: 60 } },
      ])
      store.dispatch(opened(project))
      store.dispatch(viewReset({ layer: id, frame: 20 }))
      run('enter-group')
      expect(store.getState().view.frame).toBe(inside)
      run('leave-group')
      const back = store.getState().view.frame
      expect(momentAt(timing as Timing, back, { num: 25, den: 1 }).seconds).toBeCloseTo(inside / 25, 6)
      if (timing.kind === 'play') expect(back).toBe(20)
    }
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
    const idle = COMMANDS.filter(c => c.applies && !c.applies()).map(c => c.id)
    expect(idle).toEqual(expect.arrayContaining(['split', 'freeze', 'copies', 'group', 'lock', 'copy', 'edge']))
    expect(idle).not.toContain('paste')
    run('edge')
    run('split')
    expect(shot().layers.every(l => l.matte.length === 0)).toBe(true)
    expect(shot().layers).toHaveLength(3)
  })

  it('give a locked layer no piece, and say why', () => {
    const said: string[] = []
    onSaying(sentence => said.push(sentence))
    store.dispatch(opened(testProject([testLayer(0, { name: 'Her', locked: true })])))
    store.dispatch(layerChosen('layer-0'))
    commandOf('cutout').run(stage)
    expect(said).toEqual(['“Her” is locked: unlock it first.'])
    expect(shotOf(store.getState())!.layers[0]!.matte).toEqual([])
    expect(store.getState().view.piece).toBeNull()
  })

  it('treat several layers together, and leave locked ones alone', () => {
    run('all-layers')
    run('later-ten')
    expect(shot().layers.map(l => l.span.from)).toEqual([10, 10, 10])
    store.dispatch(layersChosen(['layer-0']))
    run('lock')
    run('all-layers')
    run('split')
    expect(shot().layers.map(l => l.id.startsWith('layer-'))).toEqual([true, false, true, false, true])
    run('all-layers')
    run('delete')
    expect(layers()).toEqual(['layer-0'])
  })

  it('jump from cut to cut, mark to mark and key to key', () => {
    store.dispatch(edit('slideLayers', [{ layer: 'layer-1', from: 33 }]))
    store.dispatch(edit('putMark', 70, 'here'))
    store.dispatch(edit('putKey', 'layer-1', { of: 'opacity' }, 41, 1))
    for (const id of ['next-cut', 'next-mark', 'next-key', 'last-cut', 'last-mark']) run(id)
    expect(went).toEqual([33, 70, 41, 0])
  })

  it('zoom the lanes about the playhead, whatever their width: closer is never wider', () => {
    for (const width of [300, 800, 1700]) {
      store.dispatch(lanesMeasured(width))
      store.dispatch(lanesZoomed(null))
      run('lanes-in')
      const zoom = store.getState().view.lanes
      expect(zoom!.perFrame).toBeGreaterThan((width - 20) / 100)
      // The playhead stays where it was.
      const x = (20 - zoom!.left) * zoom!.perFrame
      expect(x).toBeCloseTo((20 * (width - 20)) / 100, 4)
      run('lanes-out')
      expect(store.getState().view.lanes).toBeNull()
    }
  })

  it('flip and slip all that is chosen', () => {
    store.dispatch(layersChosen(['layer-0', 'layer-2']))
    run('flip-across')
    expect(shot().layers.map(l => l.flip.across)).toEqual([true, false, true])
    run('trim-start')
    run('slip-back')
    expect(shot().layers.map(l => l.timing.kind === 'play' && Math.round(l.timing.from * 25))).toEqual([19, 0, 19])
  })

  it('cut by menu takes nothing away where the clipboard cannot be written', async () => {
    onSaying(() => {})
    run('cut')
    await new Promise(resolve => setTimeout(resolve, 5))
    expect(shot().layers).toHaveLength(3)
  })

  it('group, open, leave and take apart', () => {
    store.dispatch(layersChosen(['layer-0', 'layer-1']))
    run('group')
    const group = store.getState().view.layer
    expect(shot().layers.map(l => l.source.kind)).toEqual(['group', 'take'])
    run('enter-group')
    expect(layers()).toEqual(['layer-0', 'layer-1'])
    store.dispatch(edit('renameLayer', 'layer-0', 'changed inside'))
    run('leave-group')
    expect(store.getState().view).toMatchObject({ into: [], layer: group })
    run('ungroup')
    expect(shot().layers.map(l => l.name)).toEqual(['changed inside', 'take-1', 'take-2'])
  })

  it('copy layers as text that any shot takes back, and refuse any other text', async () => {
    const said: string[] = []
    onSaying(sentence => void said.push(sentence))
    const text = copied()!
    await pasteText(text, stage)
    expect(shot().layers).toHaveLength(4)
    expect(shot().layers[0]).toMatchObject({ name: 'take-1, 2', span: { from: 20, to: 120 } })
    const swapped = JSON.parse(text)
    swapped.layers[0].span = { from: 4, to: 4 }
    for (const foreign of ['hello', '{"a":1}', 'null', '', JSON.stringify(swapped)]) await pasteText(foreign, stage)
    expect(shot().layers).toHaveLength(4)
    expect(said).toHaveLength(5)
    expect(said[0]).toMatch(/no layers on the clipboard/)
    expect(said[4]).toMatch(/cannot be used/)
  })
})
