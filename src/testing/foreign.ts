// Small films in codings that browsers do not read or colours that they do not name, made with the native library's encoders.
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import '../media/promise'

export const FOREIGN_SIZE = { width: 96, height: 64 }
export const FOREIGN_FRAMES = 30

/** The luma of a pixel of a frame, 0..1: a ramp with a bar that moves a column a frame. */
export const foreignLuma = (frame: number, x: number, y: number): number =>
  Math.abs(x - 8 - frame * 2) < 4 ? 0.9 : 0.1 + 0.6 * ((x + y) / 160)

/** Plain planes of every frame, 10 bits in two bytes where the format is deep. */
function rawFrames(deep: boolean, codes: readonly number[] | null): Buffer {
  const { width, height } = FOREIGN_SIZE
  if (codes) {
    const plane = (value: number, share: number) => Buffer.alloc((width * height) / share, value)
    const frame = Buffer.concat([plane(codes[0]!, 1), plane(codes[1]!, 4), plane(codes[2]!, 4)])
    return Buffer.concat(new Array<Buffer>(FOREIGN_FRAMES).fill(frame))
  }
  const most = deep ? 1023 : 255
  const samples: number[] = []
  for (let frame = 0; frame < FOREIGN_FRAMES; frame++) {
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++)
        samples.push(Math.round((16 / 255 + foreignLuma(frame, x, y) * (219 / 255)) * most))
    }
    for (let i = 0; i < (width * height) / 2; i++) samples.push(Math.round(most / 2 + 0.5))
  }
  return deep ? Buffer.from(Uint16Array.from(samples).buffer) : Buffer.from(samples)
}

interface Kind {
  name: string
  encoder: string
  deep: boolean
  /** What a filter makes of the frames first. */
  to: string | null
  options: object
  /** Luma and chroma of the whole picture, instead of the ramp. */
  codes?: readonly number[] | null
}

/** Green in SMPTE 240M, which BT.709 would show five codes darker. */
const GREEN_240M = [170, 42, 28] as const

const KINDS = {
  hevc: {
    name: 'phone.mp4',
    encoder: 'libx265',
    deep: true,
    to: null,
    options: { crf: 8, 'x265-params': 'log-level=none' },
  },
  prores: { name: 'camera.mov', encoder: 'prores_ks', deep: true, to: 'format=yuv422p10le', options: { qscale: 2 } },
  /** Two frames woven into one, the upper field from the earlier. */
  fields: {
    name: 'tape.mov',
    encoder: 'prores_ks',
    deep: true,
    to: 'tinterlace=interleave_top,setfield=tff,format=yuv422p10le',
    options: { qscale: 2, flags: '+ilme+ildct' },
  },
  mpeg4: { name: 'old.avi', encoder: 'mpeg4', deep: false, to: null, options: { qscale: 2 } },
  smpte240m: {
    name: 'early.mp4',
    encoder: 'libx264',
    deep: false,
    to: null,
    options: { crf: 1, 'x264-params': 'colormatrix=smpte240m' },
    codes: GREEN_240M,
  },
} as const satisfies Record<string, Kind>
export type ForeignKind = keyof typeof KINDS

/** Writes a film of 30 frames at 30000/1001 into a folder; returns its path. */
export async function foreignFilm(kind: ForeignKind, folder: string): Promise<string> {
  const { Demuxer, Decoder, Encoder, FilterAPI, Muxer } = await import('node-av/api')
  const { AV_LOG_QUIET, AV_PIX_FMT_YUV420P, AV_PIX_FMT_YUV420P10LE } = await import('node-av/constants')
  const { Codec, Log } = await import('node-av/lib')
  Log.setLevel(AV_LOG_QUIET)
  const { name, encoder: coder, deep, to, options, codes = null }: Kind = KINDS[kind]
  const raw = join(folder, `${kind}.yuv`)
  await writeFile(raw, rawFrames(deep, codes))
  const out = join(folder, name)
  await using input = await Demuxer.open({
    type: 'video',
    input: raw,
    ...FOREIGN_SIZE,
    pixelFormat: deep ? AV_PIX_FMT_YUV420P10LE : AV_PIX_FMT_YUV420P,
    frameRate: { num: 30000, den: 1001 },
  })
  const picture = input.video()!
  const decoder = await Decoder.create(picture)
  const filter = FilterAPI.create(to ?? 'null')
  const encoder = await Encoder.create(Codec.findEncoderByName(coder as never)!, {
    decoder,
    filter,
    bitrate: 8_000_000,
    options: options as never,
  })
  await using output = await Muxer.open(out)
  const index = output.addStream(encoder)
  for await (using packet of encoder.packets(filter.frames(decoder.frames(input.packets(picture.index))))) {
    await output.writePacket(packet, index)
  }
  return out
}
