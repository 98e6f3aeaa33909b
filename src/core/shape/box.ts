import { corner } from '../outline'
import { framed } from './framed'

/** A rectangle. */
export const BOX = framed('box', 'Box', 'b', 'boxRow', (w, h) => [
  corner({ x: -w, y: -h }),
  corner({ x: w, y: -h }),
  corner({ x: w, y: h }),
  corner({ x: -w, y: h }),
])
