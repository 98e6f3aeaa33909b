// How each kind of source looks in the lanes and in a layer's card, a line each.
import type { ComponentType } from 'react'
import type { Layer, Source } from '../../core/shot'
import { LetteringSection } from '../graphic/LetteringSection'
import { PanelSection } from '../graphic/PanelSection'
import { BarFilm, type BarFilmProps } from '../lanes/BarFilm'
import { CommandButton } from './CommandButton'

interface SourceView {
  /** What runs along its bar. */
  Film?: ComponentType<BarFilmProps>
  /** A word beside the name in its bar. */
  badge?: string
  /** What of it can be set or done: a heading of the layer's card. */
  settings?: { name: string; Section: ComponentType<{ layer: Layer }> }
}

function GroupSection() {
  return (
    <p className="flex gap-2 pt-2">
      <CommandButton id="enter-group">Open the group</CommandButton>
      <CommandButton id="ungroup">Take it apart</CommandButton>
    </p>
  )
}

export const SOURCE_VIEWS: Readonly<Record<Source['kind'], SourceView>> = {
  take: { Film: BarFilm },
  group: { badge: 'group', settings: { name: 'Group', Section: GroupSection } },
  panel: { badge: 'panel', settings: { name: 'Panel', Section: PanelSection } },
  lettering: { badge: 'letters', settings: { name: 'Letters', Section: LetteringSection } },
  drawing: { badge: 'drawing', Film: BarFilm },
}
