// One frame of a clip as a camera would have taken it, and the truth about it.
import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { CLIPS, type ClipName, RATE } from './acts'
import { gaussians } from './chance'
import { type Actor, SCENES, type Scene } from './scenes'
import { HEIGHT, WIDTH } from './shop'

const PIXELS = WIDTH * HEIGHT
/** The shutter is open for half a frame; so many moments of it are averaged. */
const MOMENTS = 5

const decode = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)
const encode = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055)
const LINEAR = Float32Array.from({ length: 256 }, (_, i) => decode(i / 255))
const CODES = Float32Array.from({ length: 4097 }, (_, i) => encode(i / 4096) * 255)
const NOISE = gaussians(1 << 20, 99)

/** Light told place by place, over the whole picture: red, green, blue. */
function lightMap(light: Scene['light'], nearer: boolean): Float32Array {
  const out = new Float32Array(PIXELS * 3)
  for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) out.set(light(x, y, nearer), (y * WIDTH + x) * 3)
  return out
}

interface Surface {
  rgb: Float32Array
  alpha: Float32Array
}

function read(c: SKRSContext2D): Surface {
  const { data } = c.getImageData(0, 0, WIDTH, HEIGHT)
  const rgb = new Float32Array(PIXELS * 3)
  const alpha = new Float32Array(PIXELS)
  for (let i = 0; i < PIXELS; i++) {
    alpha[i] = data[i * 4 + 3]! / 255
    for (let k = 0; k < 3; k++) rgb[i * 3 + k] = LINEAR[data[i * 4 + k]!]! * alpha[i]!
  }
  return { rgb, alpha }
}

interface Stage {
  back: Float32Array
  front: Surface | null
  nearLight: Float32Array
}

const stages = new Map<Scene, Stage>()

function stageOf(scene: Scene): Stage {
  const known = stages.get(scene)
  if (known) return known
  const back = read(scene.back().getContext('2d')).rgb
  const front = scene.front ? read(scene.front().getContext('2d')) : null
  const light = lightMap(scene.light, false)
  const nearLight = lightMap(scene.light, true)
  for (let i = 0; i < PIXELS * 3; i++) {
    back[i]! *= light[i]!
    if (front) front.rgb[i]! *= nearLight[i]!
  }
  const stage = { back, front, nearLight }
  stages.set(scene, stage)
  return stage
}

/** The figure averaged over the open shutter: premultiplied linear colour and alpha. */
function blurred({ paint, frame }: Actor, seconds: number): Surface {
  const out: Surface = { rgb: new Float32Array(PIXELS * 3), alpha: new Float32Array(PIXELS) }
  const { left, top, width, height } = frame(seconds)
  for (let m = 0; m < MOMENTS; m++) {
    const canvas = createCanvas(width, height)
    const c = canvas.getContext('2d')
    c.translate(-left, -top)
    paint(c, seconds + (m / MOMENTS) * (0.5 / RATE))
    const { data } = c.getImageData(0, 0, width, height)
    for (let y = 0; y < height; y++) {
      for (let x = 0, i = (y + top) * WIDTH + left, j = y * width * 4; x < width; x++, i++, j += 4) {
        const a = data[j + 3]! / 255 / MOMENTS
        if (a === 0) continue
        out.alpha[i]! += a
        for (let k = 0; k < 3; k++) out.rgb[i * 3 + k]! += LINEAR[data[j + k]!]! * a
      }
    }
  }
  return out
}

/** How much light the figure takes from what is behind it, 0..1. */
function shadowOf(scene: Scene, actor: Actor, seconds: number): Float32Array {
  const canvas = createCanvas(WIDTH, HEIGHT)
  scene.shadow(canvas.getContext('2d'), actor, seconds)
  const { data } = canvas.getContext('2d').getImageData(0, 0, WIDTH, HEIGHT)
  return Float32Array.from({ length: PIXELS }, (_, i) => (data[i * 4 + 3]! / 255) * scene.shade(Math.floor(i / WIDTH)))
}

export interface Frame {
  /** RGBA codes. */
  pixels: Uint8ClampedArray
  /** How much of each pixel is the figure, 0..1. */
  matte: Float32Array
  /** How much light the figure takes away, 0..1. */
  shadow: Float32Array
  exposure: readonly [number, number, number]
}

/** Frame number `frame` of a clip, 30 a second. The same numbers come out every time. */
export function footageFrame(name: ClipName, frame: number): Frame {
  const clip = CLIPS[name]
  const scene = SCENES[clip.scene]
  const { back, front, nearLight } = stageOf(scene)
  const seconds = frame / RATE
  const things = createCanvas(WIDTH, HEIGHT)
  scene.moving?.(things.getContext('2d'), seconds, clip)
  const moving = read(things.getContext('2d'))
  const { actor } = clip
  const figure = actor ? blurred(actor, seconds) : null
  const shadow = actor ? shadowOf(scene, actor, seconds) : new Float32Array(PIXELS)
  const matte = new Float32Array(PIXELS)
  const pixels = new Uint8ClampedArray(PIXELS * 4)
  const drift = (clip.seed * 7919 + frame * 104_729) % NOISE.length
  for (let i = 0; i < PIXELS; i++) {
    const cover = front?.alpha[i] ?? 0
    const body = (figure?.alpha[i] ?? 0) * (1 - cover)
    const shade = 1 - shadow[i]!
    matte[i] = body
    const hand = moving.alpha[i]!
    for (let k = 0; k < 3; k++) {
      const at = i * 3 + k
      let v = (back[at]! * (1 - hand) + moving.rgb[at]! * 0.8) * shade
      if (figure) v = v * (1 - figure.alpha[i]!) + figure.rgb[at]! * nearLight[at]! * 1.05
      if (front) v = v * (1 - cover) + front.rgb[at]! * shade
      v = Math.max(0, v * clip.exposure[k]! * 1.12)
      // A shoulder, so that lamps glow rather than clip.
      v = v < 0.7 ? v : 0.7 + 0.3 * (1 - Math.exp(-(v - 0.7) / 0.3))
      const code = CODES[Math.round(Math.min(1, v) * 4096)]!
      const grain = NOISE[(at * 3 + drift + (at >> 9) * 31) & (NOISE.length - 1)]!
      pixels[i * 4 + k] = Math.round(code + grain * (0.9 + 0.9 * Math.sqrt(v)))
    }
    pixels[i * 4 + 3] = 255
  }
  return { pixels, matte, shadow, exposure: clip.exposure }
}
