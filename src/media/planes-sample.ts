// What has been painted, as an encoder takes it.
import { VideoSample, type VideoSampleInit } from 'mediabunny'
import type { Size } from '../core/shot'
import { WRITTEN_COLOUR } from './colour'

/** When a sample shows, seconds. */
type When = Required<Pick<VideoSampleInit, 'timestamp' | 'duration'>>

/** Copies Y, U and V planes of a size of even sides, close together, into a sample; whoever asked closes it. */
type Maker = (planes: Uint8Array, size: Size, when: When) => VideoSample

let make: Maker = (planes, size, when) =>
  new VideoSample(planes, {
    format: 'I420',
    codedWidth: size.width,
    codedHeight: size.height,
    colorSpace: WRITTEN_COLOUR,
    ...when,
  })

/** Tells how samples are made where an encoder has pictures of its own, so that nothing is copied on the way to it. */
export function setSampleMaker(maker: Maker): void {
  make = maker
}

export const planesSample: Maker = (planes, size, when) => make(planes, size, when)
