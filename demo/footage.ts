// One frame of a clip as a camera would have taken it, and the truth about it.
import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas'
import { CLIPS, type ClipName, RATE, SWING } from './acts'
import { gaussians } from './chance'
import { type Pose, paintClockmaker } from './clockmaker'
import { paintPendulum, paintSeconds } from './clocks'
import { COUNTER, HEIGHT, LAMPS, paintCounter, paintWall, WIDTH } from './shop'

const PIXELS = WIDTH * HEIGHT
/** The shutter is open for half a frame; so many moments of it are averaged. */
const MOMENTS = 5

const decode = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)
const encode = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055)
const LINEAR = Float32Array.from({ length: 256 }, (_, i) => decode(i / 255))
const CODES = Float32Array.from({ length: 4097 }, (_, i) => encode(i / 4096) * 255)
const NOISE = gaussians(1 << 20, 99)

/** What reaches each place of the wall, or of somebody a step before it: red, green, blue. */
function lightMap(nearer: boolean): Float32Array {
  const out = new Float32Array(PIXELS * 3)
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      let warm = 0.16
      for (const lx of LAMPS) {
        const dx = (x - lx) / 330
        const dy = (y - 60) / (nearer ? 420 : 340)
        // A pool under the shade, and what spills.
        const cone = y > 44 ? 1 : 0.35 + 0.65 * Math.exp(-(((44 - y) / 16) ** 2))
        warm += (nearer ? 1.0 : 1.1) * cone * Math.exp(-(dx * dx + dy * dy))
      }
      const dusk = 0.3 * Math.exp(-(((x - 128) / 210) ** 2) - ((y - 230) / 260) ** 2)
      const back = 0.13 * Math.exp(-(((x - 1180) / 150) ** 2) - ((y - 300) / 260) ** 2)
      const i = (y * WIDTH + x) * 3
      out[i] = warm * 1.06 + dusk * 0.62 + back * 0.7
      out[i + 1] = warm * 0.84 + dusk * 0.8 + back * 0.9
      out[i + 2] = warm * 0.56 + dusk * 1.15 + back * 1.15
    }
  }
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

let stage: { wall: Float32Array; counter: Surface; light: Float32Array; nearLight: Float32Array } | null = null

function set() {
  if (stage) return stage
  const wall = read(paintWall().getContext('2d')).rgb
  const counter = read(paintCounter().getContext('2d'))
  const light = lightMap(false)
  const nearLight = lightMap(true)
  for (let i = 0; i < PIXELS * 3; i++) {
    wall[i]! *= light[i]!
    counter.rgb[i]! *= nearLight[i]!
  }
  stage = { wall, counter, light, nearLight }
  return stage
}

/** The figure averaged over the open shutter: premultiplied linear colour and alpha. */
function blurred(pose: (s: number) => Pose, seconds: number): Surface {
  const out: Surface = { rgb: new Float32Array(PIXELS * 3), alpha: new Float32Array(PIXELS) }
  const width = 560
  const left = Math.max(0, Math.min(WIDTH - width, Math.round(pose(seconds).x) - width / 2))
  const top = 150
  const height = 420
  for (let m = 0; m < MOMENTS; m++) {
    const canvas = createCanvas(width, height)
    const c = canvas.getContext('2d')
    c.translate(-left, -top)
    paintClockmaker(c, pose(seconds + (m / MOMENTS) * (0.5 / RATE)))
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

/** How much light the figure takes from the wall and the counter, 0..1. */
function shadowOf(pose: Pose): Float32Array {
  const canvas = createCanvas(WIDTH, HEIGHT)
  const c = canvas.getContext('2d')
  const side = pose.x < 640 ? -1 : 1
  c.filter = 'blur(15px)'
  c.save()
  c.translate(side * 30, 26)
  paintClockmaker(c, pose)
  c.restore()
  c.filter = 'blur(11px)'
  c.fillStyle = '#000'
  c.beginPath()
  c.ellipse(pose.x, COUNTER + 8, 118, 13, 0, 0, 7)
  c.fill()
  const { data } = c.getImageData(0, 0, WIDTH, HEIGHT)
  return Float32Array.from({ length: PIXELS }, (_, i) => {
    const below = i >= COUNTER * WIDTH
    return (data[i * 4 + 3]! / 255) * (below ? 0.45 : 0.58)
  })
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
  const { wall, counter, nearLight } = set()
  const seconds = frame / RATE
  const hands = createCanvas(WIDTH, HEIGHT)
  paintSeconds(hands.getContext('2d'), seconds + clip.seed * 7)
  if (clip.pendulum) paintPendulum(hands.getContext('2d'), seconds / SWING)
  const moving = read(hands.getContext('2d'))
  const figure = clip.pose ? blurred(clip.pose, seconds) : null
  const shadow = clip.pose ? shadowOf(clip.pose(seconds)) : new Float32Array(PIXELS)
  const matte = new Float32Array(PIXELS)
  const pixels = new Uint8ClampedArray(PIXELS * 4)
  const drift = (clip.seed * 7919 + frame * 104_729) % NOISE.length
  for (let i = 0; i < PIXELS; i++) {
    const cover = counter.alpha[i]!
    const body = (figure?.alpha[i] ?? 0) * (1 - cover)
    const shade = 1 - shadow[i]!
    matte[i] = body
    const hand = moving.alpha[i]!
    for (let k = 0; k < 3; k++) {
      const at = i * 3 + k
      let v = (wall[at]! * (1 - hand) + moving.rgb[at]! * 0.8) * shade
      if (figure) v = v * (1 - figure.alpha[i]!) + figure.rgb[at]! * nearLight[at]! * 1.05
      v = v * (1 - cover) + counter.rgb[at]! * shade
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
