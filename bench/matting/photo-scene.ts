// Scenes that the demo's generator did not make: photographs as the set, somebody cut from another photograph before it, filmed with noise,
// drifting light, a camera that is nudged, and coded. All of it is known.
import { createCanvas, type Image, loadImage, type SKRSContext2D } from '@napi-rs/canvas'
import { gaussians } from '../../demo/chance'

export interface PhotoScene {
  name: string
  /** Photographs: the set, and what somebody is made of. */
  set: string
  cloth: string
  /** Gains of red, green and blue at a frame. */
  light(frame: number): readonly [number, number, number]
  /** Where the camera stands at a frame, px. */
  camera(frame: number): { x: number; y: number }
  /** Codes of noise in the middle of the range. */
  noise: number
  /** How much light the shadow takes. */
  shade: number
  /** px a frame that they go. */
  pace: number
  bitrate: number
}

export const WIDTH = 1920
export const HEIGHT = 1080
const PIXELS = WIDTH * HEIGHT
const MOMENTS = 4
const LINEAR = Float32Array.from({ length: 256 }, (_, i) => {
  const v = i / 255
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
})
const encode = (v: number): number => 255 * (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055)
const CODES = Float32Array.from({ length: 4097 }, (_, i) => encode(i / 4096))
const GRAIN = gaussians(1 << 20, 7)

function cover(c: SKRSContext2D, image: Image, zoom = 1): void {
  const scale = Math.max(WIDTH / image.width, HEIGHT / image.height) * zoom
  c.drawImage(image, 0, 0, image.width * scale, image.height * scale)
}

/** Somebody with hair and fingers, standing at x, filled by the pattern. */
function figure(c: SKRSContext2D, x: number, swing: number, fill: () => void): void {
  c.save()
  c.beginPath()
  c.ellipse(x, 330, 74, 96, 0, 0, 7)
  c.roundRect(x - 120, 410, 240, 420, 70)
  c.roundRect(x - 96, 780, 84, 300, 20)
  c.roundRect(x + 12, 780, 84, 300, 20)
  const arm = (side: number, angle: number) => {
    const [sx, sy] = [x + side * 105, 460]
    const [hx, hy] = [sx + Math.sin(angle) * 300 * side, sy + Math.cos(angle) * 300]
    c.moveTo(sx, sy)
    const [nx, ny] = [Math.cos(angle) * 34, -Math.sin(angle) * 34 * side]
    c.moveTo(sx - nx, sy - ny)
    c.lineTo(sx + nx, sy + ny)
    c.lineTo(hx + nx * 0.7, hy + ny * 0.7)
    c.lineTo(hx - nx * 0.7, hy - ny * 0.7)
    c.closePath()
    for (let f = -2; f <= 2; f++) {
      const a = angle + f * 0.22
      c.moveTo(hx, hy)
      c.ellipse(hx + Math.sin(a) * 40 * side, hy + Math.cos(a) * 40, 9, 34, -a * side, 0, 7)
    }
  }
  arm(-1, 0.5 + swing)
  arm(1, 0.8 - swing)
  c.clip()
  fill()
  c.restore()
  // Hair, strand by strand.
  for (let i = 0; i < 260; i++) {
    const a = -Math.PI + (i / 259) * Math.PI
    c.strokeStyle = i % 3 === 0 ? '#3a2a1c' : '#59402a'
    c.lineWidth = 0.8 + (i % 4) * 0.5
    c.beginPath()
    c.moveTo(x + Math.cos(a) * 66, 330 + Math.sin(a) * 86)
    const far = 88 + ((i * 37) % 50)
    const [tip, bend] = [far + 10, a + 0.1]
    c.quadraticCurveTo(
      x + Math.cos(a) * far,
      320 + Math.sin(a) * far,
      x + Math.cos(bend) * tip - swing * 30,
      335 + Math.sin(a) * far,
    )
    c.stroke()
  }
}

export interface TrueFrame {
  /** RGBA codes. */
  pixels: Uint8ClampedArray
  /** 0..255 */
  matte: Uint8Array
  shadow: Uint8Array
}

export interface Filmed {
  plate(index: number): Uint8ClampedArray
  frame(index: number): TrueFrame
}

export async function photoScene(scene: PhotoScene): Promise<Filmed> {
  const [set, cloth] = [await loadImage(scene.set), await loadImage(scene.cloth)]
  const back = createCanvas(WIDTH, HEIGHT)
  cover(back.getContext('2d'), set)
  const codes = back.getContext('2d').getImageData(0, 0, WIDTH, HEIGHT).data
  const light = new Float32Array(PIXELS * 3)
  // Dimmed a little, so that nothing is clipped by it.
  for (let i = 0; i < PIXELS; i++) for (let k = 0; k < 3; k++) light[i * 3 + k] = LINEAR[codes[i * 4 + k]!]! * 0.8

  /** What the camera makes of light, in planes of red, green and blue. */
  function filmed(of: Float32Array, frame: number, seed: number): Uint8ClampedArray {
    const gain = scene.light(frame)
    const pixels = new Uint8ClampedArray(PIXELS * 4)
    const shift = (seed * 7919) % GRAIN.length
    for (let i = 0; i < PIXELS; i++) {
      for (let k = 0; k < 3; k++) {
        const v = Math.max(0, Math.min(1, of[i * 3 + k]! * gain[k]!))
        const grain = GRAIN[(i * 3 + k + shift + (i >> 8) * 131) & (GRAIN.length - 1)]!
        pixels[i * 4 + k] = CODES[(v * 4096) | 0]! + grain * scene.noise * (0.6 + 0.8 * Math.sqrt(v)) + 0.5
      }
      pixels[i * 4 + 3] = 255
    }
    return pixels
  }

  /** Moved by a part of a px and more (Catmull–Rom would swing over: a picture of a lens is smooth enough for lines). */
  function moved(of: Float32Array, channels: number, { x, y }: { x: number; y: number }): Float32Array {
    if (x === 0 && y === 0) return of
    const out = new Float32Array(of.length)
    const [ix, iy] = [Math.floor(x), Math.floor(y)]
    const [u, v] = [x - ix, y - iy]
    const cubic = (t: number) => [
      (-t + 2 * t * t - t * t * t) / 2,
      (2 - 5 * t * t + 3 * t * t * t) / 2,
      (t + 4 * t * t - 3 * t * t * t) / 2,
      (-t * t + t * t * t) / 2,
    ]
    const [wu, wv] = [cubic(u), cubic(v)]
    const across = new Float32Array(of.length)
    for (let py = 0; py < HEIGHT; py++)
      for (let px = 0; px < WIDTH; px++)
        for (let k = 0; k < channels; k++) {
          let sum = 0
          for (let t = 0; t < 4; t++)
            sum += wu[t]! * of[(py * WIDTH + Math.max(0, Math.min(WIDTH - 1, px + ix + t - 1))) * channels + k]!
          across[(py * WIDTH + px) * channels + k] = sum
        }
    for (let py = 0; py < HEIGHT; py++)
      for (let t = 0; t < 4; t++) {
        const from = Math.max(0, Math.min(HEIGHT - 1, py + iy + t - 1)) * WIDTH * channels
        for (let i = 0, to = py * WIDTH * channels; i < WIDTH * channels; i++)
          out[to + i]! += wv[t]! * across[from + i]!
      }
    return out
  }

  return {
    plate: index => filmed(light, 0, 1000 + index),
    frame(index) {
      const alpha = new Float32Array(PIXELS)
      const own = new Float32Array(PIXELS * 3)
      const canvas = createCanvas(WIDTH, HEIGHT)
      const c = canvas.getContext('2d')
      for (let m = 0; m < MOMENTS; m++) {
        const t = index + m / MOMENTS / 2
        const x = 700 + scene.pace * t
        c.clearRect(0, 0, WIDTH, HEIGHT)
        figure(c, x, 0.25 * Math.sin(t * 0.35), () => {
          c.save()
          c.translate(x - 700, 0)
          cover(c, cloth, 1.2)
          c.restore()
        })
        const { data } = c.getImageData(0, 0, WIDTH, HEIGHT)
        for (let i = 0; i < PIXELS; i++) {
          const a = data[i * 4 + 3]! / 255 / MOMENTS
          if (a === 0) continue
          alpha[i]! += a
          for (let k = 0; k < 3; k++) own[i * 3 + k]! += LINEAR[data[i * 4 + k]!]! * a * 0.8
        }
      }
      const cast = createCanvas(WIDTH, HEIGHT)
      const s = cast.getContext('2d')
      s.filter = 'blur(24px)'
      s.drawImage(canvas, 90, 30)
      const shade = s.getImageData(0, 0, WIDTH, HEIGHT).data
      const seen = new Float32Array(PIXELS * 3)
      const taken = new Float32Array(PIXELS)
      for (let i = 0; i < PIXELS; i++) {
        taken[i] = (shade[i * 4 + 3]! / 255) * scene.shade
        for (let k = 0; k < 3; k++)
          seen[i * 3 + k] = light[i * 3 + k]! * (1 - taken[i]!) * (1 - alpha[i]!) + own[i * 3 + k]!
      }
      const camera = scene.camera(index)
      const bytes = (plane: Float32Array) =>
        Uint8Array.from(moved(plane, 1, camera), v => Math.max(0, Math.min(255, Math.round(v * 255))))
      return { pixels: filmed(moved(seen, 3, camera), index, index), matte: bytes(alpha), shadow: bytes(taken) }
    },
  }
}
