// Takes of every kind on their way into a shot, and shots inside shots.
import { describe, expect, it } from 'vitest'
import { testLayer, testProject, testShot, testTake } from '../../testing/documents'
import { checkProject } from '../door'
import { planFrame } from '../plan'
import { sounds } from '../sound'
import {
  actLayers,
  aloneShot,
  besideOf,
  dropTakeLayers,
  framesOf,
  innerShot,
  isPlate,
  makeLayer,
  makePiece,
  makeProject,
  makeShape,
  reach,
  type Take,
  takeSeconds,
  takeShot,
  takeUses,
  usedTakes,
} from '.'

const rate = { num: 25, den: 1 }
const size = { width: 64, height: 36 }
const film = (seconds: number, fps: number, varies = false): Take =>
  testTake(0, { picture: { kind: 'film', size, rate: { num: fps, den: 1 }, seconds, varies } })
const still = testTake(1, { picture: { kind: 'still', size: { width: 32, height: 36 } }, sound: null })
const song = testTake(2, { picture: null, sound: { channels: 1, sampleRate: 8000, seconds: 7.5 } })

describe('a layer of a take', () => {
  it.each([
    [25, 4, 100],
    [100, 4, 100],
    [24, 4, 100],
    [60, 0.01, 1],
  ])('of %i frames a second keeps its time', (fps, seconds, frames) => {
    const layer = makeLayer(film(seconds, fps), size, rate)
    expect(layer).toMatchObject({ span: { from: 0, to: frames }, timing: { from: 0, speed: 1 } })
  })

  it('of uneven frames makes a shot of the nearest rate in use', () => {
    const uneven = testTake(0, {
      picture: { kind: 'film', size, rate: { num: 9934, den: 1000 }, seconds: 4, varies: true },
    })
    expect(makeProject([uneven], 'x').shot).toMatchObject({ rate: { num: 10, den: 1 }, length: 40 })
  })

  it('goes in frame for frame: 100 a second play slow, 12 a second fast', () => {
    const slow = makeLayer(film(4, 100), size, rate, { frameForFrame: true })
    expect(slow).toMatchObject({ span: { from: 0, to: 400 }, timing: { speed: 0.25 } })
    const quick = makeLayer(film(4, 50), size, { num: 100, den: 1 }, { frameForFrame: true, at: 30 })
    expect(quick).toMatchObject({ span: { from: 30, to: 230 }, timing: { speed: 2 } })
    // Each frame of the shot is the next one of the take.
    for (const f of [0, 1, 2, 399])
      expect(planFrame(testShot([slow]), f).layers[0]!.picture).toMatchObject({ seconds: expect.closeTo(f / 100, 9) })
  })

  it('may be part of one, as far as the take goes', () => {
    expect(makeLayer(film(4, 25), size, rate, { stretch: { from: 1, to: 2.6 } })).toMatchObject({
      span: { from: 0, to: 40 },
      timing: { from: 1 },
    })
    expect(makeLayer(film(4, 25), size, rate, { stretch: { from: 3, to: 99 } }).span.to).toBe(25)
  })

  it('of a still lasts some seconds and can be drawn out for ever; of a song it is heard only', () => {
    const picture = makeLayer(still, size, rate)
    expect(picture.span.to).toBe(125)
    expect(reach(picture, [still], rate).last).toBe(Number.POSITIVE_INFINITY)
    const heard = makeLayer(song, size, rate)
    expect(heard).toMatchObject({ source: { use: 'sound' }, span: { to: 188 }, sound: { on: true } })
    expect(planFrame(testShot([heard]), 3).layers).toEqual([])
    expect(sounds(testShot([heard]))).toBe(true)
    expect(reach(heard, [song], rate)).toEqual({ first: -0, last: 187 })
  })

  it('ends with its picture, however long its sound is, and the other way round', () => {
    const longer = { ...film(2, 25), sound: { channels: 2, sampleRate: 48_000, seconds: 9 } }
    expect(takeSeconds(longer)).toBe(2)
    expect(takeSeconds(longer, 'sound')).toBe(9)
    expect(framesOf({ ...longer, sound: { ...longer.sound, seconds: 0.5 } }, rate)).toBe(50)
  })

  it('becomes several for several acts, all starting together, the first nearest the lens', () => {
    const acts = [
      { id: 'a', name: 'Waves', from: 0.4, to: 1.4 },
      { id: 'b', name: 'Bows', from: 2, to: 4 },
    ]
    const layers = actLayers(film(4, 25), acts, size, rate, 12)
    expect(layers.map(l => [l.name, l.span, l.timing])).toEqual([
      ['Waves', { from: 12, to: 37 }, { kind: 'play', from: 0.4, speed: 1, mixed: null }],
      ['Bows', { from: 12, to: 62 }, { kind: 'play', from: 2, speed: 1, mixed: null }],
    ])
    expect(new Set(layers.map(l => l.id)).size).toBe(2)
  })
})

describe('a new project', () => {
  it('takes its form from the first film, else from a still, else from what is usual', () => {
    // A font comes along and shows nothing; alone it makes no shot.
    const font = testTake(3, { picture: null, sound: null, font: { family: 'Rye', axes: [] } })
    const withFont = makeProject([font, testTake(0)], 'New')
    expect([withFont.takes.length, withFont.shot.layers.length]).toEqual([2, 1])
    expect(() => makeProject([font], 'New')).toThrow()
    const of = (...takes: Take[]) => makeProject(takes, 'New').shot
    expect(of(song, still, film(2, 50))).toMatchObject({ size, rate: { num: 50 }, length: 100 })
    expect(of(song, still)).toMatchObject({ size: { width: 32, height: 36 }, rate: { num: 25 } })
    expect(of(song)).toMatchObject({ size: { width: 1920, height: 1080 }, length: 188 })
    for (const takes of [[song], [still], [film(1, 30), song, still]])
      expect(checkProject(makeProject(takes, 'New')).ok).toBe(true)
  })
})

describe('shots inside shots', () => {
  const inner = testShot([testLayer(1), testLayer(2)])
  const outer = testShot([
    testLayer(0),
    testLayer(3, { id: 'group', name: 'Group', source: { kind: 'group', shot: inner } }),
  ])

  it('are found by path, and nowhere else', () => {
    expect(innerShot(outer, [])).toBe(outer)
    expect(innerShot(outer, ['group'])).toBe(inner)
    expect(innerShot(outer, ['layer-0'])).toBeNull()
    expect(innerShot(outer, ['group', 'layer-1'])).toBeNull()
    expect(innerShot(outer, ['nobody'])).toBeNull()
  })

  it('tell where a take is used, and let go of it everywhere', () => {
    const digest = testTake(1).digest
    expect(takeUses(outer, digest).map(u => [...u.inside, u.layer.name])).toEqual([['Group', 'take-1']])
    const shot = structuredClone(outer)
    dropTakeLayers(shot, digest)
    expect(takeUses(shot, digest)).toEqual([])
    expect(innerShot(shot, ['group'])!.layers.map(l => l.id)).toEqual(['layer-2'])
  })

  it('use the plates of their pieces like any other take', () => {
    const shot = structuredClone(outer)
    const [layer] = shot.layers
    const cut = { plate: testTake(3).digest, from: 0, to: 0.5, sensitive: 50, shadow: 100 }
    layer!.matte = [makePiece({ kind: 'cutout', cut }), makePiece(makeShape('oval', shot.size))]
    expect(usedTakes(shot)).toContain(cut.plate)
    expect(takeUses(shot, cut.plate).map(u => u.layer.id)).toEqual([layer!.id])
    dropTakeLayers(shot, cut.plate)
    expect(usedTakes(shot)).not.toContain(cut.plate)
    expect(shot.layers[0]!.matte.map(p => p.shape.kind)).toEqual(['oval'])
  })

  it('give a new piece the farthest layer that is whole for a plate, as it is at first, unless that is in an act of its take', () => {
    const shot = structuredClone(outer)
    shot.layers.push(testLayer(3, { id: 'layer-9', timing: { kind: 'freeze', at: 3 } }))
    const [own, take] = [shot.layers[0]!.id, testTake(3)]
    expect(besideOf(shot, [take], own).plate).toMatchObject({ from: 3, to: 3 })
    expect(besideOf(shot, [take], 'layer-9').plate).toBeNull()
    const acts = (from: number, to: number) => [{ ...take, acts: [{ id: 'act', name: 'Act 1', from, to }] }]
    expect(besideOf(shot, acts(0, 2), own).plate).not.toBeNull()
    expect(besideOf(shot, acts(2, 4), own).plate).toBeNull()
    // Whoever else of the take is cut out is so by a plate that somebody chose.
    const cut = { plate: testTake(2).digest, from: 1, to: 2, sensitive: 50, shadow: 100 }
    shot.layers.push({ ...shot.layers[0]!, id: 'layer-8', matte: [makePiece({ kind: 'cutout', cut })] })
    expect(besideOf(shot, acts(2, 4), own).plate).toEqual({ plate: cut.plate, from: 1, to: 2 })
    const plate = testLayer(2, { id: 'plate' })
    expect([plate, ...shot.layers].map(l => isPlate(l, shot))).toEqual([true, ...shot.layers.map(() => false)])
  })

  it('show one layer alone, or all if that one is gone', () => {
    expect(aloneShot(outer, ['layer-0']).layers.map(l => l.on)).toEqual([true, false])
    expect(aloneShot(outer, ['nobody'])).toBe(outer)
  })

  it('a take alone is a shot of its own size, rate and length', () => {
    const project = testProject()
    expect(takeShot(film(2, 50), project)).toMatchObject({ size, rate: { num: 50 }, length: 100 })
    expect(takeShot(still, project)).toMatchObject({ size: { width: 32, height: 36 }, length: 1 })
    expect(takeShot(song, project)).toMatchObject({ size: project.shot.size, length: 188 })
  })
})
