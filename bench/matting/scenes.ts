// The scenes that cut-outs are measured on: footage of the demo's generator, and photographs that it did not make. All of what is true of them is known.
import { existsSync } from 'node:fs'
import { BufferTarget, Mp4OutputFormat, Output, Quality, VideoSample, VideoSampleSource } from 'mediabunny'
import { CLIPS, type ClipName } from '../../demo/acts'
import { footageFrame } from '../../demo/footage'
import { nodeMedia, pathSource } from '../../src/cli/engine'
import type { Size } from '../../src/core/shot'
import { blobSource, type OpenMedia, openMedia } from '../../src/media/open'
import { HEIGHT, type PhotoScene, photoScene, WIDTH } from './photo-scene'

export interface Truth {
  /** 0..255 */
  matte: Uint8Array
  shadow: Uint8Array
  /** Against the plate's. */
  gain: readonly [number, number, number]
  camera: { x: number; y: number }
}

export interface Scene {
  name: string
  kind: 'generated' | 'photographed'
  size: Size
  take: OpenMedia
  plate: OpenMedia
  /** Frames of the take that are measured, in order. */
  frames: readonly number[]
  truth(frame: number): Truth
}

type Light = readonly [number, number, number]
const over = (a: Light, b: Light): Light => [a[0] / b[0], a[1] / b[1], a[2] / b[2]]

const FRAMES = 5
const generated = async (name: ClipName, plate: ClipName, from: number): Promise<Scene> => {
  const clip = (of: ClipName) => openMedia(pathSource(`demo/clips/${of}.mp4`), of)
  const bytes = (plane: Float32Array) => Uint8Array.from(plane, v => Math.round(Math.min(1, v) * 255))
  return {
    name,
    kind: 'generated',
    size: { width: 1280, height: 720 },
    take: await clip(name),
    plate: await clip(plate),
    frames: Array.from({ length: FRAMES }, (_, i) => from + i),
    truth(frame) {
      const { matte, shadow, exposure } = footageFrame(name, frame)
      return {
        matte: bytes(matte),
        shadow: bytes(shadow),
        gain: over(exposure, CLIPS[plate].exposure),
        camera: { x: 0, y: 0 },
      }
    },
  }
}

/** Frames as a film, each coded by itself. */
async function coded(frames: readonly Uint8ClampedArray[], bitrate: number, name: string): Promise<OpenMedia> {
  nodeMedia()
  const target = new BufferTarget()
  const output = new Output({ format: new Mp4OutputFormat(), target })
  const video = new VideoSampleSource({ codec: 'avc', quality: new Quality({ bitrate }), keyFrameInterval: 0 })
  output.addVideoTrack(video, { frameRate: 30 })
  await output.start()
  for (const [i, frame] of frames.entries()) {
    const sample = new VideoSample(new Uint8Array(frame.buffer), {
      format: 'RGBA',
      codedWidth: WIDTH,
      codedHeight: HEIGHT,
      timestamp: i / 30,
      duration: 1 / 30,
    })
    await video.add(sample)
    sample.close()
  }
  await output.finalize()
  return openMedia(blobSource(new Blob([target.buffer!])), `${name}.mp4`)
}

async function photographed(scene: PhotoScene): Promise<Scene> {
  const filmed = await photoScene(scene)
  const frames = Array.from({ length: FRAMES }, (_, i) => filmed.frame(i))
  return {
    name: scene.name,
    kind: 'photographed',
    size: { width: WIDTH, height: HEIGHT },
    take: await coded(
      frames.map(f => f.pixels),
      scene.bitrate,
      scene.name,
    ),
    plate: await coded([0, 1, 2, 3].map(filmed.plate), scene.bitrate, `${scene.name}-plate`),
    frames: frames.map((_, i) => i),
    truth: i => ({ ...frames[i]!, gain: over(scene.light(i), scene.light(0)), camera: scene.camera(i) }),
  }
}

const PHOTOS = '/usr/share/backgrounds/'
const even = [1, 1, 1] as const
const still = { x: 0, y: 0 }

/** A quiet set: a soft shadow, a good camera, a lamp that drifts, a floor that gives once. */
const quiet = {
  light: (f: number) => [1 + 0.004 * f, 1 + 0.004 * f, 1 + 0.003 * f] as const,
  camera: (f: number) => (f >= 3 ? { x: 0.4, y: -0.2 } : still),
  noise: 1.2,
  shade: 0.25,
  pace: 7,
  bitrate: 60e6,
}

/**
 * Photographs of Debian's packages mate-backgrounds and lomiri-wallpapers-16.04: restless sets, where a plain difference to the plate is off by 20 to 40
 * in 1000, then quiet ones, where it is by 5 to 10. Dragonfly and flower were not looked at while the method was made.
 */
const PHOTOGRAPHED: readonly PhotoScene[] = [
  {
    name: 'stream',
    set: `${PHOTOS}life_by_Aitzol_Berasategi.jpg`,
    cloth: `${PHOTOS}friends_by_Aitzol_Berasategi.jpg`,
    light: f => [1 + 0.006 * f, 1 + 0.006 * f, 1 + 0.004 * f],
    camera: f => (f >= 3 ? { x: 0.7, y: -0.4 } : still),
    noise: 1.6,
    shade: 0.5,
    pace: 9,
    bitrate: 60e6,
  },
  {
    name: 'meadow',
    set: `${PHOTOS}aitzgorri_by_Aitzol_Berasategi.jpg`,
    cloth: `${PHOTOS}picosdeeuropa_by_Aitzol_Berasategi.jpg`,
    light: () => even,
    camera: () => still,
    noise: 2.6,
    shade: 0.6,
    pace: 14,
    bitrate: 40e6,
  },
  {
    name: 'trunk',
    set: `${PHOTOS}Kleiber_by_Lukas_Baubkus.jpg`,
    cloth: `${PHOTOS}mate/nature/Wood.jpg`,
    light: f => [1 + 0.03 * Math.sin(f * 2), 1 + 0.03 * Math.sin(f * 2), 1 + 0.03 * Math.sin(f * 2)],
    camera: () => ({ x: 0.3, y: 0.2 }),
    noise: 1.2,
    shade: 0.35,
    pace: 5,
    bitrate: 60e6,
  },
  {
    name: 'shed',
    set: `${PHOTOS}friends_by_Aitzol_Berasategi.jpg`,
    cloth: `${PHOTOS}life_by_Aitzol_Berasategi.jpg`,
    light: f => [0.95, 0.95 + 0.004 * f, 0.96],
    camera: () => ({ x: -0.25, y: 0.5 }),
    noise: 1.8,
    shade: 0.45,
    pace: 8,
    bitrate: 40e6,
  },
  {
    name: 'mountain',
    set: `${PHOTOS}picosdeeuropa_by_Aitzol_Berasategi.jpg`,
    cloth: `${PHOTOS}aitzgorri_by_Aitzol_Berasategi.jpg`,
    light: f => [1.04, 1.03, 1.02 + 0.003 * f],
    camera: f => (f >= 2 ? { x: 1.3, y: 0.2 } : still),
    noise: 2.2,
    shade: 0.55,
    pace: 12,
    bitrate: 30e6,
  },
  {
    name: 'wine',
    set: `${PHOTOS}Wine_by_Jakkub_Mede.jpg`,
    cloth: `${PHOTOS}umang_by_Abhishek_Mudgal.jpg`,
    ...quiet,
  },
  {
    name: 'bridge',
    set: `${PHOTOS}Bridge_by_Sander_Klootwijk.jpg`,
    cloth: `${PHOTOS}Picture_0B_by_freespace.jpg`,
    ...quiet,
  },
  {
    name: 'dragonfly',
    set: `${PHOTOS}Dragonfly_by_Bolly.jpg`,
    cloth: `${PHOTOS}sunset_by_Aitzol_Berasategi.jpg`,
    ...quiet,
  },
  {
    name: 'garden',
    set: `${PHOTOS}mate/nature/Garden.jpg`,
    cloth: `${PHOTOS}greentock_by_Peter_Nerlich.jpg`,
    ...quiet,
  },
  {
    name: 'flower',
    set: `${PHOTOS}mate/nature/FreshFlower.jpg`,
    cloth: `${PHOTOS}mate/nature/Storm.jpg`,
    ...quiet,
  },
]

/** One scene after another; photographs only where they are installed. */
export async function* scenes(): AsyncGenerator<Scene, void, unknown> {
  yield generated('clockmaker-left', 'empty-shop', 72)
  yield generated('clockmaker-right', 'empty-shop', 64)
  yield generated('apprentice-late', 'apprentice-late', 80)
  yield generated('dusk-walk', 'dusk-walk', 92)
  yield generated('attic-steps', 'attic-steps', 92)
  for (const scene of PHOTOGRAPHED) if (existsSync(scene.set) && existsSync(scene.cloth)) yield photographed(scene)
}
