// The moment of a take that is painted on: where its frame begins, the same for all frames of the shot that show that.
import { asTake, type Layer, momentAt, type Take } from '../core/shot'
import { frameToSeconds, type Rate, secondsToFrame } from '../core/time'

/** Seconds of a layer's take, of the frame that shows at one of the shot; where the take has no frames of its own, the moment itself. */
export function paintedMoment(layer: Layer, frame: number, rate: Rate, takes: readonly Take[]): number {
  const { seconds } = momentAt(layer.timing, frame - layer.span.from, rate)
  const moment = Math.max(0, seconds)
  const picture = takes.find(t => t.digest === asTake(layer.source)?.digest)?.picture
  if (picture?.kind !== 'film') return moment
  return frameToSeconds(secondsToFrame(moment + 1e-3, picture.rate), picture.rate)
}
