// From version 4 to 5: light can be added, too.

type Loose = Record<string, unknown>

const isRecord = (value: unknown): value is Loose => typeof value === 'object' && value !== null
const each = (value: unknown, change: (record: Loose) => Loose): unknown =>
  Array.isArray(value) ? value.map(entry => (isRecord(entry) ? change(entry) : entry)) : value

const newLook = (look: Loose): Loose =>
  look.kind === 'light' && isRecord(look.values) ? { ...look, values: { ...look.values, offset: 0 } } : look

function newLayer(layer: Loose): Loose {
  const { source } = layer
  const inner = isRecord(source) && isRecord(source.shot) ? { ...source, shot: newShot(source.shot) } : source
  return { ...layer, source: inner, looks: each(layer.looks, newLook) }
}

const newShot = (shot: Loose): Loose => ({ ...shot, layers: each(shot.layers, newLayer) })

export const toFifth = (document: Loose): Loose =>
  isRecord(document.shot) ? { ...document, shot: newShot(document.shot) } : document
