// A small project with everything in it that a document can hold: stills for takes, letters, a drawing, a panel, pieces of every kind.
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { encode } from 'fast-png'
import type { Box } from '../src/core/affine'
import { corner } from '../src/core/outline'
import { cornersAt, type Quad, quadOf } from '../src/core/projective'
import { SHAPE_KINDS } from '../src/core/shape'
import {
  edits,
  FORMAT,
  type Layer,
  makeLayer,
  makeLettering,
  makePanel,
  type Piece,
  type Pin,
  type Project,
  type Shot,
  type Take,
  VERSION,
} from '../src/core/shot'

const SIZE = { width: 128, height: 72 } as const
const RATE = { num: 25, den: 1 } as const

export const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40" viewBox="0 0 60 40">
<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#c33"/></linearGradient></defs>
<g transform="rotate(8 30 20)"><rect x="6" y="6" width="44" height="26" rx="5" fill="url(#g)"/><path d="M4 38C20 2 40 60 58 4" stroke="#222" fill="none"/></g></svg>`

/** What is known of the font that a demo shot is lettered in. */
function face(demo: string): NonNullable<Take['font']> {
  const { takes } = JSON.parse(readFileSync(`${demo}shots/open-late.json`, 'utf8')) as Project
  return takes.find(t => t.font)!.font!
}

export interface SmallProject {
  project: Project
  media: Map<string, Uint8Array>
}

const around = [corner({ x: 20, y: 10 }), { ...corner({ x: 90, y: 14 }), outX: 20, outY: 12 }, corner({ x: 60, y: 66 })]

/** A piece of each kind, most of their values with keys; those that are drawn with points of their own. */
function pieces(layer: string, plate: string): Piece[] {
  return SHAPE_KINDS.map((kind, i): Piece => {
    const made = edits.startPiece(kind, SIZE, { layer, plate: { plate, from: 0, to: 0 } })
    const points = around.map(p => (kind === 'strip' ? { ...p, width: 6 } : { ...p, soft: 3 }))
    const keys = [0, 40].map(frame => ({ frame, value: points, ease: 'linear' as const }))
    const drawn = kind === 'outline' || kind === 'strip'
    return {
      ...made,
      id: `piece-${i}`,
      ...(drawn && { shape: { kind, points: { keys } } }),
      grow: {
        keys: [
          { frame: 0, value: 0, ease: { curve: [0.2, 0.1, 0.7, 1] } },
          { frame: 30, value: 5, ease: 'hold' },
        ],
      },
      feather: { inside: 2, outside: 3 },
      blur: { shutter: 180, phase: -90 },
    }
  })
}

/** Corners that go from where they lie to somewhere else. */
function pinAt(box: Box): Pin {
  const flat = quadOf(box)
  const turned = flat.map((p, i) => ({ x: p.x * 0.8 + 3 * i, y: p.y * 0.7 - 2 * i })) as unknown as Quad
  const keys = [flat, turned].map((quad, i) => ({ frame: 50 * i, value: cornersAt(quad), ease: 'linear' as const }))
  return { box, corners: { keys } }
}

export function smallProject(demo: string): SmallProject {
  const media = new Map<string, Uint8Array>()
  const take = (name: string, type: string, bytes: Uint8Array, picture: Take['picture']): Take => {
    const digest = createHash('sha256').update(bytes).digest('hex')
    media.set(digest, bytes)
    return { digest, name, type, bytes: bytes.length, picture, sound: null, marked: null, acts: [] }
  }
  const stills = [60, 100, 140].map((grey, i) => {
    const data = new Uint8Array(SIZE.width * SIZE.height * 3).fill(grey)
    const bytes = encode({ ...SIZE, data, channels: 3 })
    return take(`still ${i}.png`, 'image/png', bytes, { kind: 'still', size: { ...SIZE } })
  })
  const drawing = take('drawing.svg', 'image/svg+xml', new TextEncoder().encode(DRAWING), {
    kind: 'drawing',
    size: { width: 60, height: 40 },
  })
  const font = {
    ...take('limelight.ttf', 'font/ttf', readFileSync(`${demo}clips/limelight.ttf`), null),
    font: face(demo),
  }
  const shot: Shot = {
    id: 'shot',
    name: 'Small',
    size: { ...SIZE },
    rate: RATE,
    length: 60,
    backdrop: '#000000',
    layers: [],
    marks: [{ frame: 4, text: 'here' }],
  }
  const named = (layer: Layer, id: string, changes: Partial<Layer> = {}): Layer => ({ ...layer, id, ...changes })
  const span = { from: 0, to: 60 }
  shot.layers = [
    named(makeLayer(stills[0]!, SIZE, RATE), 'cut', { matte: pieces('wall', stills[2]!.digest), span }),
    named(makeLettering(shot, 'Half past\nnever', [font.digest]), 'letters', { span }),
    named(makeLettering(shot, 'Fragile', [font.digest]), 'pinned letters', {
      span,
      pin: pinAt({ left: -60, top: -20, right: 60, bottom: 20 }),
    }),
    named(makePanel(shot, 'oval'), 'panel', { span }),
    named(makeLayer(drawing, SIZE, RATE), 'drawing', { span, blend: 'multiply' }),
    named(makeLayer(stills[1]!, SIZE, RATE), 'pinned', {
      span,
      pin: pinAt({ left: 0, top: 0, right: SIZE.width, bottom: SIZE.height }),
    }),
    named(makeLayer(stills[1]!, SIZE, RATE), 'turned', { span, place: { x: 60, y: 30, scale: 0.7, angle: 20 } }),
    named(makeLayer(stills[2]!, SIZE, RATE), 'wall', { span }),
  ]
  return { project: { format: FORMAT, version: VERSION, id: 'small', takes: [...stills, drawing, font], shot }, media }
}
