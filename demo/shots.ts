// The demo shots, as projects.
import { FORMAT, type Layer, makePiece, type Project, type Take, VERSION } from '../src/core/shot'
import { CLIPS, type ClipName, RATE } from './acts'
import { HEIGHT, WIDTH } from './shop'
import { SAMPLE_RATE } from './sound'

type Files = ReadonlyMap<ClipName, { digest: string; bytes: number }>

function takeOf(name: ClipName, files: Files): Take {
  const seconds = CLIPS[name].frames / RATE
  return {
    ...files.get(name)!,
    name: `${name}.mp4`,
    type: 'video/mp4',
    size: { width: WIDTH, height: HEIGHT },
    rate: { num: RATE, den: 1 },
    seconds,
    sound: { channels: 2, sampleRate: SAMPLE_RATE, seconds },
  }
}

function layerOf(id: string, name: ClipName, files: Files, from: number): Layer {
  return {
    id,
    name: CLIPS[name].title,
    span: { from, to: from + CLIPS[name].frames },
    source: { kind: 'take', digest: files.get(name)!.digest },
    timing: { kind: 'play', from: 0 },
    place: { x: 0, y: 0, scale: 1 },
    opacity: 1,
    matte: [],
    matteOn: true,
    sound: { on: true, gain: 1 },
    on: true,
  }
}

/** Every demo shot with the name it has in a terminal and the frame it is known by. */
export function demoShots(files: Files): { slug: string; project: Project; poster: number }[] {
  const right = layerOf('act-b', 'clockmaker-right', files, 0)
  const edge = makePiece({ kind: 'edge', line: { x: 652, y: 360, angle: 4.4 } })
  right.matte = [{ ...edge, id: 'seam', feather: { inside: 12, outside: 12 } }]
  const left = layerOf('act-a', 'clockmaker-left', files, 0)
  const shop = layerOf('shop', 'empty-shop', files, 0)
  shop.sound.on = false
  return [
    {
      slug: 'two-at-the-counter',
      poster: 76,
      project: {
        format: FORMAT,
        version: VERSION,
        id: 'two-at-the-counter',
        takes: (['clockmaker-right', 'clockmaker-left', 'empty-shop'] as const).map(name => takeOf(name, files)),
        shot: {
          id: 'two-at-the-counter-shot',
          name: 'Two at the counter',
          size: { width: WIDTH, height: HEIGHT },
          rate: { num: RATE, den: 1 },
          length: 184,
          backdrop: '#000000',
          layers: [right, left, shop],
        },
      },
    },
  ]
}
