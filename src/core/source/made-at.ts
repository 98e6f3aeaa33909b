import { LIMITS } from '../shot/limits'
import type { Size } from '../shot/types'
import type { Showing } from './kind'

/** How many times as large as the output a picture is made at most, in px: what is enlarged further is seen in part only. */
const FINEST = 4

/** The scale that a picture of some size is made at anew, so that its edges stay as fine as any other. */
export function madeAt(own: Size, { size, scale, shown }: Showing): number {
  const most = Math.sqrt((FINEST * size.width * size.height) / (own.width * own.height)) * scale
  return Math.min(shown, Math.max(most, scale), LIMITS.side / Math.max(own.width, own.height))
}
