// Small documents for tests.
import { FORMAT, type Layer, makeLayer, type Project, type Shot, type Take, VERSION } from '../core/shot'
import type { Rate } from '../core/time'

const DIGESTS = ['a', 'b', 'c', 'd'].map(c => c.repeat(64))

export function testTake(i = 0, changes: Partial<Take> = {}): Take {
  return {
    digest: DIGESTS[i]!,
    name: `take-${i}.mp4`,
    type: 'video/mp4',
    bytes: 1000 + i,
    picture: { kind: 'film', size: { width: 64, height: 36 }, rate: { num: 25, den: 1 }, seconds: 4, varies: false },
    sound: { channels: 2, sampleRate: 48_000, seconds: 4 },
    marked: null,
    acts: [],
    ...changes,
  }
}

export const testLayer = (i: number, changes: Partial<Layer> = {}): Layer => ({
  ...makeLayer(testTake(i), { width: 64, height: 36 }, { num: 25, den: 1 }),
  id: `layer-${i}`,
  ...changes,
})

export function testShot(layers: Layer[], rate: Rate = { num: 25, den: 1 }): Shot {
  return {
    id: 'shot',
    name: 'Test',
    size: { width: 64, height: 36 },
    rate,
    length: 100,
    backdrop: '#000000',
    layers,
    marks: [],
  }
}

export function testProject(layers: Layer[] = [testLayer(0), testLayer(1)]): Project {
  return {
    format: FORMAT,
    version: VERSION,
    id: 'project',
    takes: [testTake(0), testTake(1), testTake(2)],
    shot: testShot(layers),
  }
}
