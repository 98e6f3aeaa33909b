// A fill that lies over the whole frame, for its matte to cut: what covers the set, or a seam.

import { carryBy, scaleOf } from '../affine'
import { type Border, castSchema, type Fill, filled, fillSchema, type Shadow } from '../graphic'
import type { ColourPicture } from '../picture/colour'
import type { GradientPicture } from '../picture/gradient'
import { DRAWN } from './drawn'
import type { SourceKind } from './kind'

export interface PanelSource {
  kind: 'panel'
  fill: Fill
  border: Border | null
  shadow: Shadow | null
}

/** Its fill, where it lies. */
type PanelPicture = ColourPicture | GradientPicture

const NONE = { x: 0, y: 0 }

export const PANEL: SourceKind<PanelSource, PanelPicture> = {
  ...DRAWN,
  name: 'panel',
  schema: words => ({ fill: fillSchema(words), ...castSchema(words) }),
  files: () => [],
  plan: ({ fill }, { to }) => filled(fill, to),
  behind({ border, shadow }, matte, to) {
    const scale = scaleOf(to)
    const sheet = (colour: string) => ({ kind: 'colour', colour }) as const
    const width = border ? border.width * scale : 0
    return [
      ...(border ? [{ picture: sheet(border.colour), opacity: border.opacity, matte: matte(width, NONE, 0) }] : []),
      ...(shadow
        ? [
            {
              picture: sheet(shadow.colour),
              opacity: shadow.opacity,
              matte: matte(width, carryBy(to, shadow), shadow.soft * scale),
            },
          ]
        : []),
    ]
  },
}
