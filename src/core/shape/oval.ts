import { framed } from './framed'

/** How long the handles of a quarter of a circle are, of its radius: it strays from it by less than 0.03%. */
const QUARTER = 0.5523

/** The ellipse that fills its frame. */
export const OVAL = framed('oval', 'Oval', 'o', 'ovalRow', (w, h) => {
  const along = (x: number, y: number, dx: number, dy: number) => ({ x, y, inX: -dx, inY: -dy, outX: dx, outY: dy })
  const [across, down] = [w * QUARTER, h * QUARTER]
  return [along(0, -h, across, 0), along(w, 0, 0, down), along(0, h, -across, 0), along(-w, 0, 0, -down)]
})
