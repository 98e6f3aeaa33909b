import { describe, expect, it } from 'vitest'
import { testLayer, testShot } from '../../testing/documents'
import { UNMOVED } from '../affine'
import { cornersAt } from '../projective'
import { type Layer, makeLettering, makePiece } from '../shot'
import { neededFor, neededFrames, type PlannedLayer, planFrame, planView, type View } from '.'

describe('a plan', () => {
  it('leaves out what is hidden, out of its span or transparent', () => {
    const shot = testShot([
      testLayer(0, { on: false }),
      testLayer(1, { span: { from: 10, to: 20 } }),
      testLayer(2, {
        opacity: {
          keys: [
            { frame: 0, value: 0, ease: 'linear' },
            { frame: 10, value: 1, ease: 'hold' },
          ],
        },
      }),
    ])
    const shown = (frame: number) => planFrame(shot, frame).layers.map(l => l.id)
    expect(shown(0)).toEqual([])
    expect(shown(5)).toEqual(['layer-2'])
    expect(shown(10)).toEqual(['layer-1', 'layer-2'])
    expect(shown(20)).toEqual(['layer-2'])
  })

  it.each([
    [{ num: 24000, den: 1001 }, 24, 1.001],
    [{ num: 25, den: 1 }, 25, 1],
    [{ num: 30000, den: 1001 }, 30, 1.001],
    [{ num: 60, den: 1 }, 60, 1],
  ])('asks for the right moment at %o', (rate, frames, seconds) => {
    const shot = testShot(
      [testLayer(0, { span: { from: -frames, to: 99 }, timing: { kind: 'play', from: 2, speed: 1, mixed: null } })],
      rate,
    )
    expect(neededFrames(planFrame(shot, 0))[0]!.seconds).toBeCloseTo(2 + seconds, 9)
  })

  it('plans a group inside, at its own time and at the scale it is shown', () => {
    const inner = { ...testShot([testLayer(1)], { num: 50, den: 1 }), id: 'inner' }
    const group = testLayer(0, {
      source: { kind: 'group', shot: inner },
      span: { from: 10, to: 60 },
      place: { x: 8, y: 0, scale: 0.5, angle: 0 },
      anchor: { x: 0, y: 0 },
    })
    const plan = planFrame(testShot([group]), 20)
    const [layer] = plan.layers
    const picture = layer!.picture
    expect(layer!.place).toEqual({ a: 1, b: 0, c: 0, d: 1, x: 8, y: 0 })
    expect(picture.kind === 'group' && picture.plan).toMatchObject({ size: { width: 32, height: 18 }, backdrop: null })
    expect(neededFrames(plan)).toEqual([{ digest: expect.stringMatching(/^b+$/), seconds: 0.4 }])
  })

  it('shows a pinned picture flat first, with its looks, and then in perspective, however it is made', () => {
    const box = { left: 4, top: 0, right: 64, bottom: 36 }
    const corners = cornersAt([
      { x: 0, y: 0 },
      { x: 30, y: 4 },
      { x: 30, y: 18 },
      { x: 0, y: 20 },
    ])
    const place = { x: 10, y: 6, scale: 2, angle: 0 }
    const take = testLayer(0, { pin: { box, corners }, place, anchor: { x: 0, y: 0 } })
    const looks = [{ id: 'l', kind: 'light', on: true, values: { exposure: 1, red: 0, blue: 0, offset: 0 } } as const]
    const picture = (layer: Partial<Layer>) => planFrame(testShot([{ ...take, ...layer }]), 0, 0.5).layers[0]!
    const plain = picture({})
    expect(plain).toMatchObject({ place: UNMOVED, looks: [], matte: [] })
    expect(plain.picture).toMatchObject({ kind: 'pinned', box, picture: { kind: 'take' } })
    // Corners go with the layer, in px of the output.
    expect(plain.picture.kind === 'pinned' && plain.picture.corners[1]).toEqual({ x: 35, y: 7 })
    const looked = picture({ looks }).picture
    expect(looked).toMatchObject({
      box: { left: 0, top: 0, right: 60, bottom: 36 },
      picture: {
        kind: 'group',
        plan: { size: { width: 60, height: 36 }, layers: [{ place: { x: -4 }, looks: [{}] }] },
      },
    })
    const letters = { ...makeLettering(testShot([]), 'Words', ['a'.repeat(64)]), pin: take.pin!, place }
    const drawn = planFrame(testShot([letters]), 0).layers[0]!.picture
    const inside = drawn.kind === 'pinned' && drawn.picture.kind === 'group' ? drawn.picture.plan : null
    expect(inside).toMatchObject({
      size: { width: 67, height: 40 },
      layers: [{ picture: { to: { a: expect.closeTo(10 / 9) } } }],
    })
    // Turned away further than a flat thing can be it is still a plan.
    expect(picture({ pin: { box, corners: { ...corners, topRight: { x: -1e6, y: 1e6 } } } }).picture.kind).toBe(
      'pinned',
    )
  })

  it('lets a piece that is cut out by a plate darken what lies behind its layer, apart from it', () => {
    const cut = { plate: 'c'.repeat(64), from: 0, to: 0.5, sensitive: 50, shadow: 150 }
    const layer = testLayer(0, { matte: [makePiece({ kind: 'cutout', cut })] })
    const shot = testShot([layer, testLayer(1)])
    const { layers } = planFrame(shot, 25)
    expect(layers.map(l => [l.id, l.matte[0]?.strength])).toEqual([
      ['layer-0', 1],
      ['layer-0 shade', 1],
      ['layer-0 shade', 0.5],
      ['layer-1', undefined],
    ])
    const needed = neededFor({ ...planFrame(shot, 25), layers: layers.slice(0, 2) })
    expect(needed.flatMap(n => ('recipe' in n ? [[n.part, n.seconds, ...n.recipe.of]] : []))).toEqual([
      ['colours', 1, 'a'.repeat(64), cut.plate],
      ['alpha', 1, 'a'.repeat(64), cut.plate],
      ['shadow', 1, 'a'.repeat(64), cut.plate],
    ])
    expect(planView(planFrame(shot, 25), 'cut-out', 'layer-0').layers.map(l => l.id)).toEqual(['layer-0'])
    expect(neededFrames(planFrame(testShot([{ ...layer, matteOn: false }]), 25))).toHaveLength(1)
  })

  it('takes large takes at half their size where they are only looked at, inside groups too, unless colours are taken out of them', () => {
    const inner = { ...testShot([testLayer(1)]), id: 'inner' }
    const shot = testShot([testLayer(0, { source: { kind: 'group', shot: inner } }), testLayer(2)])
    const half = { kind: 'take', half: true }
    const quick = planFrame(shot, 25, 0.5, true)
    expect(quick.layers.map(l => l.picture)).toMatchObject([{ plan: { layers: [{ picture: half }] } }, half])
    expect(quick.layers[1]!.place).toEqual(planFrame(shot, 25).layers[1]!.place)
    expect(JSON.stringify([planFrame(shot, 25, 0.5), planFrame(shot, 25, 0.6, true)])).not.toContain('half')
    const cut = { plate: 'c'.repeat(64), from: 0, to: 0.5, sensitive: 50, shadow: 150 }
    const layer = testLayer(0, { matte: [makePiece({ kind: 'cutout', cut })] })
    const [cutOut] = planFrame(testShot([layer]), 25, 0.5, true).layers
    expect(cutOut).toMatchObject({ picture: { kind: 'unmixed' }, place: { a: 0.5, d: 0.5 } })
    expect(JSON.stringify(cutOut)).not.toContain('half')
  })

  it('carries pieces into the picture: pinned to the layer with its place, pinned to the shot without', () => {
    const piece = makePiece({ kind: 'box', frame: { x: 10, y: 10, width: 8, height: 4, angle: 90 } })
    const layer = testLayer(0, {
      place: { x: 5, y: 6, scale: 2, angle: 0 },
      anchor: { x: 0, y: 0 },
      matte: [
        { ...piece, id: 'a', feather: { inside: 3, outside: 0 } },
        { ...piece, id: 'b', pinnedTo: 'shot' },
        { ...piece, id: 'c', on: false },
      ],
    })
    const planned = planFrame(testShot([layer]), 0, 0.5).layers[0]!
    expect(planned.place).toEqual({ a: 1, b: 0, c: 0, d: 1, x: 2.5, y: 3 })
    expect(planned.matte).toHaveLength(2)
    expect(planned.matte[0]).toMatchObject({ inside: 3, shape: { x: 12.5, y: 13, halfWidth: 4, halfHeight: 2 } })
    expect(planned.matte[1]).toMatchObject({ shape: { x: 5, y: 5, halfWidth: 2, halfHeight: 1 } })
    expect(planFrame(testShot([{ ...layer, matteOn: false }]), 0).layers[0]!.matte).toEqual([])
  })

  it('is the same for the same question, and changes nothing it is given', () => {
    const shot = Object.freeze(testShot([testLayer(0)]))
    expect(planFrame(shot, 3)).toEqual(planFrame(shot, 3))
  })
})

it('feathers a shape no farther than it is large, so that one that shrinks to nothing goes with all about it', () => {
  const oval = makePiece({
    kind: 'oval',
    frame: {
      keys: [
        { frame: 0, value: { x: 30, y: 18, width: 40, height: 20, angle: 0 }, ease: 'linear' },
        { frame: 10, value: { x: 30, y: 18, width: 0, height: 0, angle: 0 }, ease: 'linear' },
      ],
    },
  })
  const outside = (grow: number) => {
    const matte = [{ ...oval, grow, feather: { inside: 0, outside: 12 } }]
    const shot = testShot([testLayer(0, { matte, anchor: { x: 0, y: 0 }, place: { x: 0, y: 0, scale: 1, angle: 0 } })])
    return [0, 4, 8, 10].map(frame => planFrame(shot, frame).layers[0]!.matte[0]!.outside)
  }
  expect(outside(0)).toEqual([12, 12, 4, 0])
  expect(outside(5)).toEqual([12, 12, 9, 5])
})

describe('views', () => {
  const piece = makePiece({ kind: 'oval', frame: { x: 10, y: 10, width: 8, height: 4, angle: 0 } })
  const plan = planFrame(testShot([testLayer(0, { matte: [piece] }), testLayer(1)]), 0)
  it('show the matte, the cut-out and the uncut picture of one layer', () => {
    expect(planView(plan, 'matte', 'layer-0').layers).toMatchObject([
      { picture: { kind: 'matte', layers: [{ picture: { colour: '#ffffff' }, matte: [{}] }] }, matte: [] },
    ])
    expect(planView(plan, 'cut-out', 'layer-0')).toMatchObject({ backdrop: null, layers: [{ id: 'layer-0' }] })
    expect(planView(plan, 'uncut', 'layer-0').layers.map(l => l.matte.length)).toEqual([0, 0])
    // The rest is dimmed by a dark sheet behind the layer, or the layer is half of what it is.
    const dimmed = planView(plan, 'uncut', 'layer-0', 'dimmed').layers
    expect(dimmed.map(l => l.picture.kind)).toEqual(['take', 'colour', 'take'])
    expect(dimmed[1]).toMatchObject({ matte: [], picture: { colour: '#000000' } })
    expect(planView(plan, 'uncut', 'layer-0', 'through').layers.map(l => l.opacity)).toEqual([0.5, 1])
    expect(planView(plan, 'matte', 'gone').layers).toEqual([])
  })

  it('take a row of copies as one', () => {
    const row = testLayer(0, { matte: [piece], copies: { count: 2, later: 0, x: 5, y: 0, keep: 1 } })
    const three = planFrame(testShot([row, testLayer(1)]), 0)
    const layersOf = (view: View): PlannedLayer[] => {
      const { layers } = planView(three, view, 'layer-0')
      const [first] = layers
      return first?.picture.kind === 'matte' ? first.picture.layers : layers
    }
    const xs = (view: View) =>
      layersOf(view).map(l => Math.round((l.matte[0]?.shape as { x: number } | undefined)?.x ?? -1))
    expect(xs('matte')).toEqual([10, 15, 20])
    expect(xs('cut-out')).toEqual([10, 15, 20])
    expect(xs('uncut')).toEqual([-1, -1, -1, -1])
    expect(xs('tint').slice(0, 3)).toEqual([10, 15, 20])
  })
})
