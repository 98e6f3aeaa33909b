// Frames that stay, through which others are read and written. A frame's planes are objects that hold on to the whole picture until
// they are collected: asked of every frame, megabytes wait for that all the time, and the collector never rests.
import { FFmpegError, Frame } from 'node-av'

export interface FrameStage {
  frame: Frame
  /** Bytes from one row to the next. */
  planes: { data: Uint8Array; stride: number }[]
}

type Form = Pick<Frame, 'format' | 'width' | 'height'>

/** How many sizes and formats are kept at once. */
const KEPT = 4

// In order of use, the latest last.
const stages = new Map<string, FrameStage>()

function made({ format, width, height }: Form): FrameStage {
  const frame = new Frame()
  frame.alloc()
  frame.width = width
  frame.height = height
  frame.format = format
  FFmpegError.throwIfError(frame.allocBuffer(), 'allocBuffer')
  const { data, linesize } = frame
  return { frame, planes: data!.map((data, i) => ({ data, stride: linesize[i]! })) }
}

/** The frame of a format and size that stays: what is in it lasts until it is asked for again. */
export function frameStage(form: Form): FrameStage {
  const name = `${form.format} ${form.width}×${form.height}`
  const stage = stages.get(name) ?? made(form)
  stages.delete(name)
  stages.set(name, stage)
  const [oldest] = stages
  if (stages.size > KEPT) {
    stages.delete(oldest![0])
    oldest![1].frame.free()
  }
  return stage
}
