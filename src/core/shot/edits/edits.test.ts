// Time and place: what trimming, cutting, repeating and moving promise, whatever they are given.
import fc from 'fast-check'
import { produce } from 'immer'
import { describe, expect, it } from 'vitest'
import { testLayer, testProject, testShot, testTake } from '../../../testing/documents'
import { checkProject } from '../../door'
import { sample } from '../../keys'
import { neededFrames, planFrame } from '../../plan'
import { edits, type Layer, momentAt, type Shot, type Timing } from '..'

const takes = [0, 1, 2].map(i => testTake(i))
const play = (from: number, speed = 1): Timing => ({ kind: 'play', from, speed, mixed: null })

const anyTiming: fc.Arbitrary<Timing> = fc.oneof(
  fc
    .record({ from: fc.integer({ min: 0, max: 99 }), speed: fc.constantFrom(1, -1, 0.5, 2, -0.25, 7.3) })
    .map(({ from, speed }) => play(from / 25, speed)),
  fc.integer({ min: 0, max: 99 }).map((at): Timing => ({ kind: 'freeze', at: at / 25 })),
  fc
    .record({
      from: fc.integer({ min: 0, max: 80 }),
      length: fc.integer({ min: 1, max: 19 }),
      style: fc.constantFrom('cut' as const, 'swing' as const, 'dissolve' as const),
      over: fc.integer({ min: 0, max: 12 }),
      speed: fc.constantFrom(1, -1, 0.5),
      begun: fc.integer({ min: 0, max: 30 }),
    })
    .map(({ from, length, ...rest }): Timing => ({ kind: 'loop', from: from / 25, to: (from + length) / 25, ...rest })),
)

/** A layer whose span lies where its timing still shows the take. */
const anyLayer = fc
  .record({ timing: anyTiming, from: fc.integer({ min: 0, max: 60 }), length: fc.integer({ min: 2, max: 60 }) })
  .map(({ timing, from, length }) => {
    const shot = testShot([testLayer(0, { timing, span: { from, to: from + length } })])
    edits.trimLayers(shot, 'to', [{ layer: 'layer-0', frame: from + length }], takes)
    return shot.layers[0]!
  })

/** Everything a shot shows and every number of it, frame by frame; layers' names left out. */
const pictures = (shot: Shot) =>
  Array.from({ length: shot.length }, (_, f) => ({
    ...planFrame(shot, f),
    layers: planFrame(shot, f).layers.map(({ id: _, ...rest }) => rest),
  }))

/** Seconds rounded, since sums of fractions differ in their last digits. */
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v) => (typeof v === 'number' ? Math.round(v * 1e7) / 1e7 : v)))

const insideTake = (layer: Layer, shot: Shot): boolean => {
  for (let f = layer.span.from; f < layer.span.to; f++) {
    const { seconds, other } = momentAt(layer.timing, f - layer.span.from, shot.rate)
    for (const s of [seconds, ...(other ? [other.seconds] : [])]) if (s < -1e-6 || s >= 4 - 1e-6) return false
  }
  return layer.span.to > layer.span.from
}

describe('cutting', () => {
  it('in two and joining again leaves every picture as it was, and both halves show it too', () => {
    fc.assert(
      fc.property(anyLayer, fc.integer({ min: 0, max: 120 }), (layer, at) => {
        const shot = testShot([layer])
        const before = rounded(pictures(shot))
        edits.splitLayers(shot, [layer.id], at)
        expect(rounded(pictures(shot))).toEqual(before)
        const [right, left] = shot.layers
        if (!right || !left) return
        expect(edits.whyNotJoined(shot, left, right)).toBeNull()
        edits.joinLayers(shot, right.id, left.id)
        expect(shot.layers).toHaveLength(1)
        expect(rounded(pictures(shot))).toEqual(before)
      }),
    )
  })

  it('into acts shows what was there, all of them from where the layer began, and the shot ends with the longest', () => {
    fc.assert(
      fc.property(
        anyLayer,
        fc.array(fc.integer({ min: -5, max: 120 }), { minLength: 4, maxLength: 4 }),
        (layer, ends) => {
          const shot = testShot([layer])
          const before = pictures(shot)
          const [a, b, c, d] = ends.sort((x, y) => x - y) as [number, number, number, number]
          const acts = [
            { name: 'One', from: a, to: b },
            { name: 'Two', from: c, to: d },
          ]
          edits.cutIntoActs(shot, layer.id, acts)
          if (shot.layers.length < 2) return
          const { span } = layer
          shot.layers.forEach((part, i) => {
            const from = Math.max(span.from, acts[i]!.from)
            const alone = pictures({ ...shot, layers: [part] })
            const shown = before.slice(from, Math.min(span.to, acts[i]!.to, from + shot.length - span.from))
            expect(rounded(alone.slice(span.from, span.from + shown.length))).toEqual(rounded(shown))
          })
          const end = Math.max(...shot.layers.map(l => l.span.to))
          expect(shot.length).toBe(Math.min(before.length, end))
        },
      ),
    )
    const keyed = testLayer(0, {
      opacity: {
        keys: [
          { frame: 0, value: 0, ease: 'linear' },
          { frame: 60, value: 1, ease: 'linear' },
        ],
      },
      fade: { in: 5, out: 5 },
    })
    const shot = testShot([keyed, testLayer(1)])
    edits.cutIntoActs(shot, 'layer-0', [
      { name: 'One', from: 0, to: 30 },
      { name: 'Two', from: 50, to: Number.NaN },
      { name: 'Three', from: 40, to: 80 },
    ])
    expect(shot.layers.map(l => [l.name, l.span.to, l.fade])).toEqual([
      ['One', 30, { in: 5, out: 0 }],
      ['Three', 40, { in: 0, out: 0 }],
      [expect.anything(), 100, expect.anything()],
    ])
    expect(sample(shot.layers[1]!.opacity, 20)).toBeCloseTo(1)
    expect(shot.length).toBe(100)
  })

  it('trims and slips never show a frame outside the take', () => {
    const step = fc.oneof(
      fc.tuple(fc.constantFrom('from' as const, 'to' as const), fc.integer({ min: -300, max: 300 })).map(
        ([end, frame]) =>
          (s: Shot) =>
            edits.trimLayers(s, end, [{ layer: 'layer-0', frame }], takes),
      ),
      fc.integer({ min: -300, max: 300 }).map(by => (s: Shot) => edits.slipLayer(s, 'layer-0', by, takes)),
      fc.integer({ min: -300, max: 300 }).map(from => (s: Shot) => edits.slideLayers(s, [{ layer: 'layer-0', from }])),
    )
    fc.assert(
      fc.property(anyLayer, fc.array(step, { maxLength: 8 }), (layer, steps) => {
        const shot = testShot([layer])
        for (const apply of steps) {
          apply(shot)
          expect(insideTake(shot.layers[0]!, shot)).toBe(true)
        }
      }),
    )
  })

  it('a trim shows what was there: the frames that stay are the same', () => {
    const shot = testShot([testLayer(0, { span: { from: 10, to: 60 }, timing: play(0.4) })])
    const before = rounded(pictures(shot).slice(20, 50))
    edits.trimLayers(shot, 'from', [{ layer: 'layer-0', frame: 20 }], takes)
    edits.trimLayers(shot, 'to', [{ layer: 'layer-0', frame: 50 }], takes)
    expect(rounded(pictures(shot).slice(20, 50))).toEqual(before)
    edits.trimLayers(shot, 'from', [{ layer: 'layer-0', frame: -900 }], takes)
    expect(shot.layers[0]).toMatchObject({ span: { from: 0, to: 50 }, timing: play(0) })
  })

  it('closes a gap only for what comes after it', () => {
    const at = (from: number, to: number) => ({ span: { from, to } })
    const shot = testShot([testLayer(0, at(0, 20)), testLayer(1, at(20, 50)), testLayer(2, at(50, 70))])
    edits.removeLayers(shot, ['layer-1'], true)
    expect(shot.layers.map(l => l.span)).toEqual([
      { from: 0, to: 20 },
      { from: 20, to: 40 },
    ])
  })
})

describe('time', () => {
  const seconds = (layer: Layer, shot: Shot) =>
    Array.from(
      { length: layer.span.to - layer.span.from },
      (_, i) => Math.round(momentAt(layer.timing, i, shot.rate).seconds * 25 * 1000) / 1000,
    )

  it('loops by a hard cut, there and back, and by a dissolve', () => {
    const loop = (style: 'cut' | 'swing' | 'dissolve', over = 0): Timing => ({
      kind: 'loop',
      from: 0.4,
      to: 0.56,
      style,
      over,
      speed: 1,
      begun: 0,
    })
    const shown = (timing: Timing, n: number) => {
      const shot = testShot([testLayer(0, { timing, span: { from: 0, to: n } })])
      return seconds(shot.layers[0]!, shot)
    }
    expect(shown(loop('cut'), 9)).toEqual([10, 11, 12, 13, 10, 11, 12, 13, 10])
    expect(shown(loop('swing'), 9)).toEqual([10, 11, 12, 13, 12, 11, 10, 11, 12])
    expect(shown({ ...loop('cut'), speed: -1 } as Timing, 5)).toEqual([13, 12, 11, 10, 13])
    expect(shown(loop('dissolve', 1), 7)).toEqual([10, 11, 12, 13, 11, 12, 13])
    expect(momentAt(loop('dissolve', 1), 3, { num: 25, den: 1 }).other).toEqual({ seconds: 0.4, share: 0.5 })
  })

  it('a loop longer than the take is cut to it; one of no length is none', () => {
    const shot = testShot([testLayer(0)])
    edits.loopLayer(shot, 'layer-0', { from: 90, to: 5000, style: 'cut', over: 0, until: 400 }, takes)
    expect(shot.layers[0]).toMatchObject({ timing: { from: 3.6, to: 4 }, span: { from: 90, to: 400 } })
    edits.changeLoop(shot, 'layer-0', { from: 3, to: 99 }, takes)
    expect(shot.layers[0]!.timing).toMatchObject({ from: 3, to: 4 })
    edits.changeLoop(shot, 'layer-0', { to: 2 }, takes)
    expect(shot.layers[0]!.timing).toMatchObject({ from: 3, to: 4 })
  })

  it.each([0, Number.NaN, Number.POSITIVE_INFINITY])('a speed of %s is none', speed => {
    const shot = testShot([testLayer(0)])
    edits.setSpeed(shot, 'layer-0', speed, takes)
    expect(shot.layers[0]!.timing).toEqual(play(0))
  })

  it('goes from a hundredth to a hundredfold and backwards, over the same part', () => {
    const shot = testShot([testLayer(0, { span: { from: 10, to: 60 }, timing: play(1) })])
    const layer = () => shot.layers[0]!
    edits.setSpeed(shot, 'layer-0', 1e9, takes)
    expect(layer()).toMatchObject({ timing: { speed: 100 }, span: { from: 10, to: 11 } })
    edits.setSpeed(shot, 'layer-0', 1, takes)
    edits.trimLayers(shot, 'to', [{ layer: 'layer-0', frame: 60 }], takes)
    edits.setSpeed(shot, 'layer-0', 0.5, takes)
    expect(layer()).toMatchObject({ timing: { speed: 0.5, from: 1 }, span: { from: 10, to: 110 } })
    const forwards = seconds(layer(), shot)
    edits.setSpeed(shot, 'layer-0', -0.5, takes)
    expect(seconds(layer(), shot)).toEqual([...forwards].reverse())
    edits.setSpeed(shot, 'layer-0', 0.5, takes)
    expect(seconds(layer(), shot)).toEqual(forwards)
  })

  it('stretches keys with the picture that they were set on', () => {
    const shot = testShot([testLayer(0, { span: { from: 0, to: 50 } })])
    edits.putKey(shot, 'layer-0', { of: 'opacity' }, 10, 0)
    edits.putKey(shot, 'layer-0', { of: 'opacity' }, 20, 1)
    const began = structuredClone(shot.layers[0]!)
    edits.stretchLayer(shot, 'layer-0', 100, takes, began)
    expect(shot.layers[0]!.opacity).toMatchObject({ keys: [{ frame: 20 }, { frame: 40 }] })
    edits.stretchLayer(shot, 'layer-0', 25, takes, began)
    expect(shot.layers[0]).toMatchObject({
      timing: { speed: 2 },
      opacity: { keys: [{ frame: 5 }, { frame: 10 }] },
    })
  })

  it('mixes neighbouring frames in slow motion, by how far between them it is', () => {
    const slow: Timing = { kind: 'play', from: 0, speed: 0.25, mixed: 1 / 25 }
    const at = (i: number) => momentAt(slow, i, { num: 25, den: 1 })
    expect(at(0)).toEqual({ seconds: 0, other: null })
    expect(at(1)).toMatchObject({ seconds: 0, other: { seconds: 0.04, share: expect.closeTo(0.25, 6) } })
    expect(at(7)).toMatchObject({ seconds: 0.04, other: { seconds: 0.08, share: expect.closeTo(0.75, 6) } })
    expect(momentAt({ ...slow, speed: 2 }, 3, { num: 25, den: 1 }).other).toBeNull()
  })

  it('holds in mid-layer, pushing the rest or not', () => {
    const shown = (push: boolean) => {
      const shot = testShot([testLayer(0, { span: { from: 0, to: 8 } })])
      edits.holdLayer(shot, 'layer-0', 3, 2, push)
      return [...shot.layers].sort((a, b) => a.span.from - b.span.from).flatMap(l => seconds(l, shot))
    }
    expect(shown(true)).toEqual([0, 1, 2, 3, 3, 3, 4, 5, 6, 7])
    expect(shown(false)).toEqual([0, 1, 2, 3, 3, 5, 6, 7])
  })

  it('freezes what is seen: the matte stands still with the picture', () => {
    const project = testProject()
    const { shot } = project
    edits.addPiece(shot, 'layer-0', { ...edits.startPiece('oval', shot.size), id: 'oval' })
    const path = { of: 'shape', piece: 'oval' } as const
    const box = { x: 0, y: 9, width: 4, height: 4, angle: 0 }
    edits.putKey(shot, 'layer-0', path, 0, box)
    edits.putKey(shot, 'layer-0', path, 20, { ...box, x: 40 })
    const seen = planFrame(shot, 10).layers[0]
    edits.freezeLayer(shot, 'layer-0', 10)
    for (const f of [0, 10, 50]) expect(planFrame(shot, f).layers[0]).toEqual(seen)
  })

  it('lets a plate stand until the shot’s end, however short its take', () => {
    const shot = testShot([testLayer(0, { span: { from: 10, to: 30 } })])
    edits.standLayer(shot, 'layer-0', 20)
    expect(shot.layers[0]!.span).toEqual({ from: 10, to: shot.length })
    const momentOf = (frame: number) => planFrame(shot, frame).layers[0]
    expect(momentOf(shot.length - 1)).toEqual(momentOf(10))
  })

  it('stutters: the first frames again and again, then the rest', () => {
    const shot = testShot([testLayer(0, { span: { from: 10, to: 30 } })])
    edits.stutterLayer(shot, 'layer-0', 14, 3, 3, 1)
    const parts = [...shot.layers].sort((a, b) => a.span.from - b.span.from)
    expect(parts.map(l => [l.span.from, l.span.to])).toEqual([
      [10, 14],
      [14, 17],
      [18, 21],
      [22, 25],
      [26, 39],
    ])
    expect(parts.map(l => seconds(l, shot)[0])).toEqual([0, 4, 4, 4, 7])
    edits.stutterLayer(shot, 'layer-0', 0, 99, 3, 0)
    expect(shot.layers).toHaveLength(5)
  })

  it('repeats a layer in a row that is one thing: later, shifted, weaker', () => {
    const shot = testShot([testLayer(0, { span: { from: 0, to: 40 } })])
    edits.setCopies(shot, 'layer-0', { count: 3, later: 5, x: 7, y: -1, keep: 0.5 })
    const planned = planFrame(shot, 12).layers
    expect(planned.map(l => [l.place.x, l.place.y, l.opacity])).toEqual([
      [0, 0, 1],
      [7, -1, 0.5],
      [14, -2, 0.25],
    ])
    expect(neededFrames(planFrame(shot, 12)).map(n => Math.round(n.seconds * 25))).toEqual([12, 7, 2])
    edits.setCopies(shot, 'layer-0', { count: 1e9, later: Number.NaN, x: Number.NaN, y: 0, keep: 7 })
    expect(shot.layers[0]!.copies).toEqual({ count: 60, later: 0, x: 0, y: 0, keep: 1 })
  })
})

describe('place, groups and form', () => {
  it('moving the anchor leaves the picture where it is', () => {
    const change = fc.record({
      angle: fc.integer({ min: -360, max: 360 }),
      scale: fc.constantFrom(0.5, 1, 2.3),
      across: fc.boolean(),
      down: fc.boolean(),
      x: fc.integer({ min: -50, max: 90 }),
      y: fc.integer({ min: -50, max: 90 }),
    })
    fc.assert(
      fc.property(change, ({ angle, scale, across, down, x, y }) => {
        const shot = testShot([testLayer(0, { place: { x: 20, y: 9, scale, angle }, flip: { across, down } })])
        const before = planFrame(shot, 0).layers[0]!.place
        edits.setAnchor(shot, 'layer-0', { x, y })
        const after = planFrame(shot, 0).layers[0]!.place
        for (const part of ['a', 'b', 'c', 'd', 'x', 'y'] as const) expect(after[part]).toBeCloseTo(before[part], 6)
      }),
    )
  })

  it('grouping and taking apart gives the same pictures at the same frames', () => {
    const shot = testShot([
      testLayer(0, {
        span: { from: 20, to: 70 },
        opacity: {
          keys: [
            { frame: 30, value: 0.2, ease: 'linear' },
            { frame: 60, value: 0.9, ease: 'linear' },
          ],
        },
      }),
      testLayer(1, { span: { from: 10, to: 90 }, timing: play(0.2) }),
      testLayer(2),
    ])
    const before = rounded(pictures(shot))
    edits.groupLayers(shot, ['layer-0', 'layer-1'], 'Two')
    expect(shot.layers).toHaveLength(2)
    const [group] = shot.layers
    const inner = planFrame(shot, 40).layers[0]!.picture
    expect(inner.kind === 'group' && inner.plan.layers.map(l => l.opacity)).toEqual([expect.closeTo(0.4333, 3), 1])
    edits.ungroup(shot, group!.id)
    expect(rounded(pictures(shot))).toEqual(before)
  })

  it('a group shows all of a row of copies, and is not taken apart where it has been cut across one', () => {
    const row = testLayer(0, { span: { from: 10, to: 40 }, copies: { count: 3, later: 10, x: 2, y: 0, keep: 1 } })
    const shot = testShot([row, testLayer(1)])
    const before = rounded(pictures(shot).map(p => p.layers.length))
    edits.groupLayers(shot, ['layer-0'], 'Row')
    const [group] = shot.layers
    expect(group!.span).toEqual({ from: 10, to: 70 })
    const cut = structuredClone(shot)
    edits.trimLayers(cut, 'to', [{ layer: group!.id, frame: 55 }], takes)
    expect(edits.whyNotUngrouped(cut.layers[0]!, cut)).toMatch(/row of copies/)
    edits.ungroup(shot, group!.id)
    expect(rounded(pictures(shot).map(p => p.layers.length))).toEqual(before)
  })

  it('several slip together, each as far as it reaches, and back', () => {
    const shot = testShot([
      testLayer(0, { span: { from: 0, to: 50 }, timing: play(1) }),
      testLayer(1, { span: { from: 0, to: 50 }, timing: play(1.8) }),
      testLayer(2, { locked: true, span: { from: 0, to: 50 } }),
    ])
    const began = structuredClone(shot.layers)
    const from = () => shot.layers.map(l => l.timing.kind === 'play' && Math.round(l.timing.from * 25))
    const ids = ['layer-0', 'layer-1', 'layer-2']
    edits.slipLayers(shot, ids, 20, takes, began)
    expect(from()).toEqual([45, 50, 0])
    edits.slipLayers(shot, ids, 3, takes, began)
    expect(from()).toEqual([28, 48, 0])
  })

  it('no group lies in itself or too deep', () => {
    const shot = testShot([testLayer(0)])
    for (let i = 0; i < 12; i++) edits.groupLayers(shot, [shot.layers[0]!.id], `Group ${i}`)
    expect(edits.groupDepth(shot)).toBeLessThanOrEqual(8)
    expect(checkProject({ ...testProject(), shot }).ok).toBe(true)
  })

  it('another rate keeps everything at its second, another size about the middle', () => {
    const shot = testShot([testLayer(0, { span: { from: 25, to: 75 }, fade: { in: 5, out: 0 } })])
    edits.putMark(shot, 50, 'here')
    edits.reformShot(shot, { size: { width: 128, height: 72 }, rate: { num: 50, den: 1 }, length: 200, grow: true })
    expect(shot.layers[0]).toMatchObject({
      span: { from: 50, to: 150 },
      fade: { in: 10, out: 0 },
      place: { x: 64, y: 36, scale: 2 },
    })
    expect(shot.marks).toEqual([{ frame: 100, text: 'here' }])
    expect(edits.reformTold(shot, { size: shot.size, rate: shot.rate, length: 60, grow: true })).toEqual([
      '“take-0” reaches beyond the new end: what is there is kept, but not shown.',
    ])
  })

  it('a dissolve fades the nearer of two, and both sounds', () => {
    const shot = testShot([testLayer(0, { span: { from: 0, to: 40 } }), testLayer(1, { span: { from: 30, to: 80 } })])
    edits.dissolveLayers(shot, 'layer-0', 'layer-1')
    expect(shot.layers.map(l => [l.fade, l.sound.fade])).toEqual([
      [
        { in: 0, out: 10 },
        { in: 0, out: 10 },
      ],
      [
        { in: 0, out: 0 },
        { in: 10, out: 0 },
      ],
    ])
    expect(planFrame(shot, 35).layers.map(l => l.opacity)).toEqual([expect.closeTo(5 / 11, 6), 1])
  })
})

it('whatever is done in whatever order leaves a valid document, and locked layers as they are', () => {
  const id = fc.constantFrom('layer-0', 'layer-1', 'layer-2', 'nobody')
  const n = fc.oneof(fc.integer({ min: -200, max: 300 }), fc.constantFrom(Number.NaN, 1e9, 0, 0.5))
  const change = fc.oneof(
    fc.tuple(id, n).map(
      ([l, f]) =>
        (s: Shot) =>
          edits.splitLayers(s, [l], Math.round(f) || 0),
    ),
    fc.tuple(id, n).map(
      ([l, f]) =>
        (s: Shot) =>
          edits.trimLayers(s, 'from', [{ layer: l, frame: f }], takes),
    ),
    fc.tuple(id, n).map(
      ([l, f]) =>
        (s: Shot) =>
          edits.slipLayer(s, l, f, takes),
    ),
    fc.tuple(id, n).map(
      ([l, v]) =>
        (s: Shot) =>
          edits.setSpeed(s, l, v, takes),
    ),
    fc.tuple(id, n).map(
      ([l, f]) =>
        (s: Shot) =>
          edits.freezeLayer(s, l, Math.round(f) || 0),
    ),
    fc.tuple(id, n, n).map(
      ([l, a, b]) =>
        (s: Shot) =>
          edits.loopLayer(
            s,
            l,
            { from: Math.round(a) || 0, to: Math.round(b) || 0, style: 'dissolve', over: 3, until: 150 },
            takes,
          ),
    ),
    fc.tuple(id, fc.integer({ min: -5, max: 90 })).map(
      ([l, f]) =>
        (s: Shot) =>
          edits.holdLayer(s, l, f, 6, true),
    ),
    fc.tuple(id, fc.integer({ min: -5, max: 90 })).map(
      ([l, f]) =>
        (s: Shot) =>
          edits.stutterLayer(s, l, f, 4, 3, 1),
    ),
    fc.tuple(id, n).map(
      ([l, v]) =>
        (s: Shot) =>
          edits.setFade(s, l, 'picture', { in: v }),
    ),
    id.map(l => (s: Shot) => edits.playLayer(s, l, takes)),
    id.map(l => (s: Shot) => edits.detachSound(s, l)),
    id.map(l => (s: Shot) => edits.groupLayers(s, [l, 'layer-2'], 'Some')),
    id.map(l => (s: Shot) => edits.ungroup(s, s.layers.find(x => x.source.kind === 'group')?.id ?? l)),
    id.map(l => (s: Shot) => edits.removeLayers(s, [l], true)),
  )
  fc.assert(
    fc.property(fc.array(change, { maxLength: 12 }), changes => {
      const before = testProject([testLayer(0), testLayer(1, { locked: true }), testLayer(2)])
      const after = changes.reduce((p, apply) => produce(p, draft => apply(draft.shot)), before)
      const checked = checkProject(after)
      expect(checked).toMatchObject({ ok: true })
      expect(after.shot.layers.find(l => l.id === 'layer-1')).toEqual(before.shot.layers[1])
    }),
  )
})
