// The colour that a line is seen best in, on the picture that lies under it.
import { useEffect, useState } from 'react'
import type { Camera } from '../../../app/store'
import type { Point } from '../../../core/affine'
import type { Size } from '../../../core/shot'

/** What lines are drawn in where nothing is asked for: the pale tint of mattes first, then what differs from it and from each other. */
export const LINE_COLOURS = ['#a9ecd9', '#ffd24a', '#ff6ad5', '#5ab4ff', '#ffffff'] as const

/** Px of a small copy of the picture, and places of a line that are looked at. */
const SMALL = { width: 160, height: 90 }
const PLACES = 96
/** Milliseconds between two looks. */
const PACE = 400
/** How much better another colour has to be before the line changes: it must not flicker. */
const BETTER = 1.25

const rgbOf = (colour: string): number[] => [1, 3, 5].map(i => Number.parseInt(colour.slice(i, i + 2), 16))

/** How far apart the eye sees two colours, about. */
const apart = (a: readonly number[], b: readonly number[]): number =>
  Math.hypot(0.55 * (a[0]! - b[0]!), 0.77 * (a[1]! - b[1]!), 0.34 * (a[2]! - b[2]!))

/** Of the colours of lines the one that is seen best on what lies under a line; the present one unless another is clearly better. */
export function bestColour(under: readonly (readonly number[])[], now: string): string {
  if (under.length === 0) return now
  const worth = (colour: string) => {
    const rgb = rgbOf(colour)
    const differ = under.map(u => apart(rgb, u)).sort((a, b) => a - b)
    // A line is lost where it is hardest to see.
    return differ[Math.floor(differ.length / 8)]!
  }
  const best = LINE_COLOURS.reduce<string>((most, c) => (worth(c) > worth(most) ? c : most), LINE_COLOURS[0])
  return worth(best) > worth(now) * BETTER ? best : now
}

/** The colour of an outline's line, whose points are told in px of the screen: the one that is asked for, or the one that is seen best. */
export function useLineColour(
  canvas: HTMLCanvasElement,
  points: readonly Point[],
  camera: Camera,
  shot: Size | undefined,
  asked: string | null,
): string {
  const [colour, setColour] = useState<string>(LINE_COLOURS[0])
  useEffect(() => {
    if (asked || !shot) return
    const look = () => {
      const small = new OffscreenCanvas(SMALL.width, SMALL.height).getContext('2d', { willReadFrequently: true })
      if (!small) return
      small.drawImage(canvas, 0, 0, SMALL.width, SMALL.height)
      const { data } = small.getImageData(0, 0, SMALL.width, SMALL.height)
      const across = SMALL.width / (shot.width * camera.zoom)
      const down = SMALL.height / (shot.height * camera.zoom)
      const step = Math.max(1, Math.floor(points.length / PLACES))
      const under = points.flatMap((p, i) => {
        const x = Math.floor((p.x - camera.x) * across)
        const y = Math.floor((p.y - camera.y) * down)
        if (i % step !== 0 || x < 0 || y < 0 || x >= SMALL.width || y >= SMALL.height) return []
        return [[...data.subarray((y * SMALL.width + x) * 4, (y * SMALL.width + x) * 4 + 3)]]
      })
      setColour(now => bestColour(under, now))
    }
    const timer = setTimeout(look, PACE)
    return () => clearTimeout(timer)
  }, [canvas, points, camera, shot, asked])
  return asked ?? colour
}
