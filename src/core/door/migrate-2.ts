// From version 2 to 3: layers learn looks.

type Loose = Record<string, unknown>

const isRecord = (value: unknown): value is Loose => typeof value === 'object' && value !== null

function newLayer(layer: unknown): unknown {
  if (!isRecord(layer)) return layer
  const { source } = layer
  const inner = isRecord(source) && isRecord(source.shot) ? { ...source, shot: newShot(source.shot) } : source
  return { ...layer, source: inner, looks: [] }
}

const newShot = (shot: Loose): Loose => ({
  ...shot,
  layers: Array.isArray(shot.layers) ? shot.layers.map(newLayer) : shot.layers,
})

export const toThird = (document: Loose): Loose =>
  isRecord(document.shot) ? { ...document, shot: newShot(document.shot) } : document
