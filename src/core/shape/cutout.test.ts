// Pieces that a plate cuts out, as documents hold them and plans see them.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testLayer, testProject, testShot, testTake } from '../../testing/documents'
import { admit, checkLayers, checkProject, salvage, writeLayers } from '../door'
import { neededFor, planFrame, planView } from '../plan'
import type { Cut } from '../plate/recipe'
import { edits, type Layer, makePanel, makePiece, type Project } from '../shot'

const CUT: Cut = { plate: testTake(2).digest, from: 0.5, to: 1, sensitive: 50, shadow: 100 }
const cutBy = (cut: Cut) => ({ ...makePiece({ kind: 'cutout', cut }), id: 'piece' })
const cutLayer = (changes: Partial<Layer> = {}, cut = CUT) => testLayer(0, { matte: [cutBy(cut)], ...changes })
const project = (layer = cutLayer()): Project => testProject([layer, testLayer(1)])

/** Which pictures are asked for, at which seconds. */
const derived = (layer: Layer, frame: number) =>
  neededFor(planFrame(testShot([layer]), frame)).flatMap(n => ('recipe' in n ? [[n.part, n.seconds]] : []))

describe('a document with a plate', () => {
  it('comes in as it was written, by file and by clipboard, and never without its plate', () => {
    expect(checkProject(JSON.parse(JSON.stringify(project())))).toMatchObject({ ok: true })
    const sheet = writeLayers([cutLayer()], [testTake(0), testTake(2)])
    expect(checkLayers(sheet)).toMatchObject({ ok: true })
    expect(checkLayers(writeLayers([cutLayer()], [testTake(0)])).ok).toBe(false)
    const gone = { ...project(), takes: [testTake(0), testTake(1)] }
    expect(checkProject(gone).ok).toBe(false)
    expect(admit({ ...gone, shot: testShot([testLayer(0)]) }, gone)).toMatchObject({
      ok: false,
      problem: expect.stringContaining('does not have'),
    })
  })

  it('is opened without the piece where the plate is gone, and says so', () => {
    const gone = { ...project(), takes: [testTake(0), testTake(1)] }
    const opened = salvage(structuredClone(gone))
    expect(opened.ok && opened.value.aside).toEqual(['the piece “Plate cut-out”'])
    expect(opened.ok && opened.value.project.shot.layers.map(l => l.matte.length)).toEqual([0, 0])
  })

  it('holds no numbers that could not be opened again', () => {
    const numbers = fc.oneof(
      fc.constantFrom(Number.NaN, Number.POSITIVE_INFINITY, -1, 1e12, '50', null, undefined, [], {}),
      fc.double({ min: -1e9, max: -1e-9, noNaN: true }),
    )
    fc.assert(
      fc.property(fc.constantFrom('from', 'to', 'sensitive', 'shadow'), numbers, (field, value) => {
        const bad = project(cutLayer({}, { ...CUT, [field]: value } as Cut))
        expect(checkProject(structuredClone(bad)).ok).toBe(false)
        expect(admit(project(), bad).ok).toBe(false)
      }),
    )
    for (const plate of ['x', 'A'.repeat(64), '../../etc', 7]) {
      expect(checkProject(project(cutLayer({}, { ...CUT, plate } as Cut))).ok).toBe(false)
    }
    for (const changes of [{ sensitive: 101 }, { shadow: 200.5 }]) {
      expect(admit(project(), project(cutLayer({}, { ...CUT, ...changes }))).ok).toBe(false)
    }
  })
})

describe('a plan with a plate', () => {
  it('asks for the moment that its layer shows, in whatever time that runs', () => {
    expect(derived(cutLayer(), 50)).toEqual([
      ['colours', 2],
      ['alpha', 2],
      ['shadow', 2],
    ])
    const frozen = cutLayer({ timing: { kind: 'freeze', at: 1.25 } })
    expect(derived(frozen, 50)[1]).toEqual(['alpha', 1.25])
    const backwards = cutLayer({ timing: { kind: 'play', from: 3, speed: -1, mixed: null } })
    expect(derived(backwards, 25)[1]).toEqual(['alpha', 2])
    const row = cutLayer({ copies: { count: 2, later: 5, x: 0, y: 0, keep: 1 } })
    expect(derived(row, 20).filter(([part]) => part === 'alpha')).toEqual([
      ['alpha', 0.8],
      ['alpha', 0.6],
      ['alpha', 0.4],
    ])
  })

  it('takes no shadow along where none is wanted, nor while the piece is not used', () => {
    expect(derived(cutLayer({}, { ...CUT, shadow: 0 }), 10).map(([part]) => part)).toEqual(['colours', 'alpha'])
    const keys = [
      { frame: 0, value: false, ease: 'hold' as const },
      { frame: 30, value: true, ease: 'hold' as const },
    ]
    const late = cutLayer({ matte: [{ ...cutBy(CUT), on: { keys } }] })
    expect(derived(late, 10)).toEqual([])
    expect(derived(late, 40)).toHaveLength(3)
  })

  it('shows somebody in their own colours only where nothing else adds to the matte, and as filmed where it is seen uncut', () => {
    const kindOf = (layer: Layer) => planFrame(testShot([layer]), 10).layers[0]!.picture.kind
    const other = {
      ...makePiece({ kind: 'box', frame: { x: 3, y: 3, width: 9, height: 9, angle: 0 } }),
      id: 'other',
    }
    expect(kindOf(cutLayer())).toBe('unmixed')
    expect(kindOf(cutLayer({ matte: [cutBy(CUT), { ...other, join: 'subtract' }] }))).toBe('unmixed')
    expect(kindOf(cutLayer({ matte: [cutBy(CUT), other] }))).toBe('take')
    expect(kindOf(cutLayer({ matte: [cutBy(CUT), { ...other, on: false }] }))).toBe('unmixed')
    expect(kindOf(cutLayer({ matte: [{ ...cutBy(CUT), inverted: true }] }))).toBe('take')
    expect(kindOf(cutLayer({ matteOn: false }))).toBe('take')
    const plan = planFrame(testShot([cutLayer()]), 10)
    const seen = (view: 'uncut' | 'tint' | 'cut-out') => planView(plan, view, 'layer-0').layers.map(l => l.picture.kind)
    expect(seen('uncut')[0]).toBe('take')
    expect(seen('tint')).toEqual(['unmixed', 'colour', 'take'])
    expect(seen('cut-out')).toEqual(['unmixed'])
  })

  it('takes nothing away without a plate, of what is no take, or once it is another shape', () => {
    const layers = (layer: Layer) => planFrame(testShot([layer]), 0).layers
    expect(derived(cutLayer({}, { ...CUT, plate: '' }), 0)).toEqual([])
    const shot = testShot([])
    const panel = { ...makePanel(shot, null), matte: [cutBy(CUT)] }
    expect(derived(panel, 0)).toEqual([])
    expect(layers(panel)).toHaveLength(1)
    const swapped = testShot([cutLayer()])
    edits.swapShape(swapped, 'layer-0', 'piece', 'oval', { width: 64, height: 36 }, [])
    expect(derived(swapped.layers[0]!, 0)).toEqual([])
  })
})
