// Pieces that are other layers: what they cover, how bright they are, and what becomes of them when layers come and go.
import { beforeAll, describe, expect, it } from 'vitest'
import { testLayer, testProject, testShot } from '../../testing/documents'
import { testKernels } from '../../testing/kernels'
import { admit, checkProject, salvage } from '../door'
import { planFrame, planView } from '../plan'
import { type Kernels, renderFrame } from '../render'
import { edits, type Layer, makePanel, makePiece, type Piece, type Shape, type Shot } from '../shot'

let k: Kernels
beforeAll(async () => {
  k = await testKernels()
})

const OVAL: Shape = { kind: 'oval', frame: { x: 30, y: 17, width: 31, height: 19, angle: 20 } }
const named = (shape: Shape, changes: Partial<Piece> = {}): Piece => ({ ...makePiece(shape), id: 'piece', ...changes })
const asLayer = (of: 'alpha' | 'brightness', changes: Partial<Piece> = {}): Piece =>
  named({ kind: 'layer', shows: { layer: 'other', of } }, { pinnedTo: 'shot', ...changes })

/** A sheet of a colour over the whole of a shot. */
const sheet = (id: string, colour: string, changes: Partial<Layer> = {}): Layer => ({
  ...makePanel(testShot([]), null),
  id,
  source: { kind: 'panel', fill: { kind: 'plain', colour }, border: null, shadow: null },
  ...changes,
})

/** The matte of the layer `own`, in codes of grey. */
function matteOf(shot: Shot, frame = 0): number[] {
  const plan = planView(planFrame(shot, frame), 'matte', 'own')
  const made = renderFrame(k, plan, () => null)
  const grey = [...k.bytes(made.ptr, made.width * made.height * 4)].filter((_, i) => i % 4 === 0)
  k.free(made.ptr)
  return grey
}

const worst = (a: readonly number[], b: readonly number[]) => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)))

describe('a piece that is another layer', () => {
  const direct = (changes: Partial<Piece>) => testShot([sheet('own', '#ffffff', { matte: [named(OVAL, changes)] })])
  const shown = (piece: Piece, of: Partial<Piece> = {}, other: Partial<Layer> = {}) =>
    testShot([
      sheet('other', '#ff0000', { matte: [named(OVAL, of)], on: false, ...other }),
      sheet('own', '#ffffff', { matte: [piece] }),
    ])

  it('covers what that covers, hidden or not, its feather and opacity too', () => {
    const soft = { feather: { inside: 2, outside: 3 } }
    expect(matteOf(shown(asLayer('alpha'), soft))).toEqual(matteOf(direct(soft)))
    expect(matteOf(shown(asLayer('alpha'), soft, { on: true }))).toEqual(matteOf(direct(soft)))
    expect(matteOf(shown(asLayer('alpha'), soft, { opacity: 0.5 }))).toEqual(
      matteOf(direct({ ...soft, strength: 0.5 })),
    )
    expect(matteOf(shown(asLayer('alpha', { inverted: true })))).toEqual(matteOf(direct({ inverted: true })))
  })

  it('is as bright as it: half of grey is half, and nothing outside', () => {
    const grey = matteOf(
      testShot([
        sheet('own', '#ffffff', { matte: [asLayer('brightness')] }),
        sheet('other', '#808080', { matte: [named(OVAL)] }),
      ]),
    )
    expect(grey[17 * 64 + 30]).toBe(128)
    expect(grey[0]).toBe(0)
    expect(
      matteOf(testShot([sheet('own', '#ffffff', { matte: [asLayer('brightness')] }), sheet('other', '#ffffff')])),
    ).toEqual(new Array(64 * 36).fill(255))
  })

  it.each([
    { grow: 4, feather: { inside: 0, outside: 0 } },
    { grow: -3, feather: { inside: 1, outside: 2 } },
    { grow: 0, feather: { inside: 3, outside: 3 } },
    { grow: -40, feather: { inside: 1, outside: 0 } },
  ])('grows and feathers by the distance to what is covered, to a twentieth of a px: %o', changes => {
    expect(worst(matteOf(shown(asLayer('alpha', changes))), matteOf(direct(changes)))).toBeLessThanOrEqual(14)
  })

  it('stays soft nowhere along the border of the picture', () => {
    const all = shown(asLayer('alpha', { feather: { inside: 6, outside: 6 } }), {}, { matte: [] })
    expect(matteOf(all)).toEqual(new Array(64 * 36).fill(255))
  })

  it('lies where that lies in the shot, or where it would lie in the layer’s own picture', () => {
    const moved = (pinnedTo: 'shot' | 'layer') =>
      testShot([
        sheet('other', '#ffffff', { matte: [named(OVAL)], on: false }),
        testLayer(0, {
          id: 'own',
          place: { x: 12, y: 3, scale: 1, angle: 0 },
          anchor: { x: 0, y: 0 },
          matte: [asLayer('alpha', { pinnedTo })],
        }),
      ])
    const oval = matteOf(direct({}))
    expect(matteOf(moved('shot'))).toEqual(oval)
    const by = (v: number[]) => v.map((_, i) => (i % 64 >= 12 && i >= 3 * 64 ? v[i - 12 - 3 * 64]! : 0))
    expect(matteOf(moved('layer'))).toEqual(by(oval))
  })

  it('covers nothing where that is gone or not on yet', () => {
    const nothing = new Array(64 * 36).fill(0)
    expect(matteOf(shown(named({ kind: 'layer', shows: { layer: 'nobody', of: 'alpha' } })))).toEqual(nothing)
    expect(matteOf(shown(asLayer('alpha'), {}, { span: { from: 5, to: 9 } }), 2)).toEqual(nothing)
  })
})

describe('layers that are mattes', () => {
  const pair = () =>
    testShot([
      testLayer(0, { id: 'other' }),
      testLayer(1, { id: 'own', matte: [asLayer('alpha', { pinnedTo: 'layer' })] }),
    ])
  const shownOf = (layer: Layer) => (layer.matte[0]!.shape as { shows: { layer: string } }).shows.layer

  it('go along where both are copied, pasted or taken out of a group', () => {
    const copied = pair()
    edits.duplicateLayers(copied, [...copied.layers])
    const pasted = testShot([])
    edits.pasteLayers(pasted, pair().layers, 10)
    const apart = pair()
    edits.groupLayers(apart, ['other', 'own'], 'Group', 'group')
    edits.ungroup(apart, 'group')
    for (const shot of [copied, pasted, apart]) {
      const [other, own] = shot.layers.length === 4 ? [shot.layers[0]!, shot.layers[2]!] : shot.layers
      expect(own!.id).not.toBe('own')
      expect(shownOf(own!)).toBe(other!.id)
    }
  })

  it('never lead back to themselves: such a change is refused, such a file too, and one that was kept is mended', () => {
    const project = { ...testProject(), shot: pair() }
    const turned = structuredClone(project)
    edits.addPiece(turned.shot, 'other', {
      ...asLayer('alpha'),
      shape: { kind: 'layer', shows: { layer: 'own', of: 'alpha' } },
    })
    expect(admit(project, turned)).toMatchObject({
      ok: false,
      problem: expect.stringContaining('made of that very layer'),
    })
    expect(checkProject(structuredClone(turned))).toMatchObject({ ok: false })
    const mended = salvage(structuredClone(turned))
    expect(mended.ok && mended.value.aside).toHaveLength(1)
    expect(mended.ok && checkProject(mended.value.project).ok).toBe(true)
  })

  it('are refused where they are made of each other so often that a frame would take minutes', () => {
    const layers = Array.from({ length: 6 }, (_, i) =>
      testLayer(0, {
        id: `layer-${i}`,
        matte: Array.from({ length: i === 5 ? 0 : 40 }, (_, j) => ({
          ...named({ kind: 'layer', shows: { layer: `layer-${i + 1}`, of: 'alpha' } }),
          id: `piece-${j}`,
        })),
      }),
    )
    expect(checkProject(testProject(layers))).toMatchObject({ ok: false, problem: expect.stringContaining('minutes') })
  })
})
