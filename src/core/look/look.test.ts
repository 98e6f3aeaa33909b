// Looks: in a document, in a plan, and in the picture against plain arithmetic.
import { beforeAll, describe, expect, it } from 'vitest'
import { testLayer, testProject } from '../../testing/documents'
import { decode, encode, noise, putBytes, testKernels } from '../../testing/kernels'
import { checkProject } from '../door'
import { planFrame } from '../plan'
import { type Kernels, renderFrame } from '../render'
import { edits, type Layer } from '../shot'
import { freshValues, type Look } from '.'

const look = (values: Partial<Look['values']>, on = true): Look => ({
  id: 'look',
  kind: 'light',
  on,
  values: { exposure: 0, red: 0, blue: 0, offset: 0, ...values } as Look['values'],
})

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

/** The codes of a frame in which a take of noise is shown, and those of the noise. */
function shown(changes: Partial<Layer>, frame = 0) {
  const { shot } = testProject([testLayer(0, changes)])
  const data = noise(64 * 36 * 4, 256, 3).map((v, i) => (i % 4 === 3 ? 255 : v))
  const picture = { kind: 'codes', width: 64, height: 36, ptr: putBytes(k, data), opaque: true } as const
  const made = renderFrame(k, planFrame(shot, frame), () => picture)
  const bytes = [...k.bytes(made.ptr, data.length)]
  k.free(made.ptr)
  k.free(picture.ptr)
  return { bytes, data: [...data] }
}

describe('light', () => {
  it('multiplies linear light by powers of two, a colour apart from the others, and clips at white', () => {
    const { bytes, data } = shown({ looks: [look({ exposure: 1, red: -0.5, blue: 0.25 })] })
    const gains = [2 ** 0.5, 2, 2 ** 1.25]
    for (const [i, v] of bytes.entries()) {
      const want = i % 4 === 3 ? 255 : encode(Math.min(1, decode(data[i]!) * gains[i % 4]!))
      expect(Math.abs(v - want)).toBeLessThan(1)
    }
  })

  it('adds to linear light where there is any picture, down to black', () => {
    for (const offset of [3, -6]) {
      const { bytes, data } = shown({ looks: [look({ exposure: -0.5, offset })] })
      for (const [i, v] of bytes.entries()) {
        const want = i % 4 === 3 ? 255 : encode(Math.max(0, decode(data[i]!) * 2 ** -0.5 + offset / 100))
        expect(Math.abs(v - want)).toBeLessThan(1)
      }
    }
  })

  it('leaves every code as it was where it does nothing, is off, or is undone by the next', () => {
    const { bytes, data } = shown({ looks: [look({})] })
    expect(bytes).toEqual(data)
    expect(shown({ looks: [look({ exposure: 2 }, false)] }).bytes).toEqual(data)
    const undone = shown({ looks: [look({ exposure: -3 }), { ...look({ exposure: 3 }), id: 'back' }] }).bytes
    for (const [i, v] of undone.entries()) expect(Math.abs(v - data[i]!)).toBeLessThanOrEqual(1)
  })

  it('moves by keys, and is the same however the layer is placed', () => {
    const keys = [
      { frame: 0, value: 0, ease: 'linear' as const },
      { frame: 10, value: 2, ease: 'linear' as const },
    ]
    const half = shown({ looks: [look({ exposure: { keys } })] }, 5).bytes
    expect(half).toEqual(shown({ looks: [look({ exposure: 1 })] }).bytes)
    const upsideDown = { anchor: { x: 32, y: 18 }, place: { x: 32, y: 18, scale: 1, angle: 180 } }
    const turned = shown({ ...upsideDown, looks: [look({ exposure: 1 })] }).bytes
    const pixel = (bytes: number[], i: number) => bytes.slice(i * 4, i * 4 + 3)
    for (const i of [0, 77, 1000, 2303]) {
      const [a, b] = [pixel(turned, i), pixel(half, 64 * 36 - 1 - i)]
      for (const [c, v] of a.entries()) expect(Math.abs(v - b[c]!)).toBeLessThanOrEqual(1)
    }
  })
})

describe('grain', () => {
  const grain = (values: Look['values']): Look => ({
    id: 'grain',
    kind: 'grain',
    on: true,
    values: { ...freshValues('grain'), ...values },
  })
  /** What was added to each channel of an even grey, codes. */
  function added(values: Look['values'], frame = 0): number[][] {
    const panel = { kind: 'panel', fill: { kind: 'plain', colour: '#808080' }, border: null, shadow: null } as const
    const { shot } = testProject([testLayer(0, { source: panel, looks: [grain(values)] })])
    const made = renderFrame(k, planFrame({ ...shot, size: { width: 256, height: 256 } }, frame), () => null)
    const bytes = [...k.bytes(made.ptr, 256 * 256 * 4)]
    k.free(made.ptr)
    return [0, 1, 2].map(c => bytes.filter((_, i) => i % 4 === c).map(v => v - 128))
  }
  const mean = (all: readonly number[]) => all.reduce((sum, v) => sum + v, 0) / all.length
  const together = (a: readonly number[], b: readonly number[]) =>
    mean(a.map((v, i) => v * b[i]!)) / Math.sqrt(mean(a.map(v => v * v)) * mean(b.map(v => v * v)))

  it('is as strong as it says about what was there, of the size and the colour that it says, and another one at each frame', () => {
    const fine = added({ middle: 6, size: 1, colour: 0 })
    for (const channel of fine) {
      expect(Math.abs(mean(channel))).toBeLessThan(0.1)
      expect(Math.sqrt(mean(channel.map(v => v * v)))).toBeCloseTo(6, 0)
    }
    expect(together(fine[0]!, fine[2]!)).toBeGreaterThan(0.99)
    expect(Math.abs(together(fine[0]!, fine[0]!.slice(1).concat(0)))).toBeLessThan(0.05)
    const coarse = added({ middle: 6, size: 3, colour: 100 })
    expect(Math.sqrt(mean(coarse[1]!.map(v => v * v)))).toBeCloseTo(6, 0)
    expect(Math.abs(together(coarse[0]!, coarse[1]!))).toBeLessThan(0.1)
    expect(together(coarse[0]!, coarse[0]!.slice(1).concat(0))).toBeGreaterThan(0.6)
    expect(Math.abs(together(fine[0]!, added({ middle: 6, size: 1, colour: 0 }, 1)[0]!))).toBeLessThan(0.05)
    expect(added({ middle: 6 }, 1)).toEqual(added({ middle: 6 }, 1))
  })
})

describe('in a document', () => {
  const project = testProject([testLayer(0, { looks: [look({ exposure: 1 })] })])

  it('are held to their bounds, and each is there once', () => {
    expect(checkProject(structuredClone(project))).toMatchObject({ ok: true })
    const refused = (change: (looks: Look[]) => void) => {
      const broken = structuredClone(project)
      change(broken.shot.layers[0]!.looks)
      expect(checkProject(broken)).toMatchObject({ ok: false })
    }
    refused(looks => Object.assign(looks[0]!.values, { exposure: 9 }))
    refused(looks => Object.assign(looks[0]!.values, { green: 0 }))
    refused(looks => Object.assign(looks[0]!, { kind: 'glitter' }))
    refused(looks => looks.push(look({})))
  })

  it('come to version 2 as none, in groups too', () => {
    const old = structuredClone(project)
    edits.groupLayers(old.shot, ['layer-0'], 'Group')
    const text = JSON.stringify({ ...old, version: 2 }, (name, value) => (name === 'looks' ? undefined : value))
    const now = checkProject(JSON.parse(text))
    expect(now).toMatchObject({ ok: true, value: { version: 5 } })
    expect(JSON.stringify(now).match(/"looks":\[\]/g)).toHaveLength(2)
  })

  it('are added, switched, put in another order and removed', () => {
    const { shot } = structuredClone(project)
    const looks = () => shot.layers[0]!.looks.map(l => `${l.id}${l.on ? '' : ' off'}`)
    edits.addLook(shot, 'layer-0', { ...look({}), id: 'second' })
    edits.moveLook(shot, 'layer-0', 'second', 0)
    edits.switchLook(shot, 'layer-0', 'look', false)
    expect(looks()).toEqual(['second', 'look off'])
    edits.removeLook(shot, 'layer-0', 'second')
    expect(looks()).toEqual(['look off'])
  })
})
