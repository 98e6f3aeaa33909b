// Tag colours: muted, and none of them that of time or of mattes.
import type { Tag } from '../../core/shot'

const COLOURS: Readonly<Record<Tag, string>> = {
  none: 'transparent',
  amber: '#c98f3d',
  brick: '#b4563f',
  rose: '#c07a95',
  violet: '#8f7fc4',
  slate: '#7d95ad',
  fern: '#7da35c',
}

export const tagColour = (tag: Tag): string => COLOURS[tag]
