// Layers of letters and panels: what they say and how they look.
import type { LetteringSource } from '../../source/lettering'
import type { PanelSource } from '../../source/panel'
import { letteringName } from '../make-graphic'
import type { Layer, Shot } from '../types'
import { editableLayer } from './find'

type Graphic = LetteringSource | PanelSource

const graphicOf = (layer: Layer | undefined): Graphic | null =>
  layer && (layer.source.kind === 'lettering' || layer.source.kind === 'panel') ? layer.source : null

/** What of a lettering or panel can be set as it is; numbers that carry keys are values. */
export type GraphicChanges = Partial<
  Pick<LetteringSource, 'fonts' | 'axes' | 'align' | 'border' | 'shadow'> & { fill: Graphic['fill'] }
>

export function changeGraphic(shot: Shot, layer: string, changes: GraphicChanges): void {
  const source = graphicOf(editableLayer(shot, layer))
  if (!source) return
  // What a panel does not know, it is not given; and without a fill it would be nothing.
  for (const [name, value] of Object.entries(changes)) {
    if (!(name in source) || (source.kind === 'panel' && name === 'fill' && value === null)) continue
    Object.assign(source, { [name]: value })
  }
}

/** Lets letters say something else. A layer that is called by what it said is called by what it says. */
export function writeText(shot: Shot, layer: string, text: string): void {
  const found = editableLayer(shot, layer)
  if (found?.source.kind !== 'lettering') return
  const { source } = found
  if (found.name === letteringName(source.text)) found.name = letteringName(text)
  source.text = text
}
