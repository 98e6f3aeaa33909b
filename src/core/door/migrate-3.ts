// From version 3 to 4: pieces learn to move as a whole, apart from their shape, and to blur as they move.

type Loose = Record<string, unknown>

const isRecord = (value: unknown): value is Loose => typeof value === 'object' && value !== null
const each = (value: unknown, change: (record: Loose) => Loose): unknown =>
  Array.isArray(value) ? value.map(entry => (isRecord(entry) ? change(entry) : entry)) : value

const newPiece = (piece: Loose): Loose => ({
  ...piece,
  pivot: { x: 0, y: 0 },
  motion: { x: 0, y: 0, scale: 1, angle: 0 },
  blur: { shutter: 0, phase: 0 },
})

function newLayer(layer: Loose): Loose {
  const { source } = layer
  const inner = isRecord(source) && isRecord(source.shot) ? { ...source, shot: newShot(source.shot) } : source
  return { ...layer, source: inner, matte: each(layer.matte, newPiece) }
}

const newShot = (shot: Loose): Loose => ({ ...shot, layers: each(shot.layers, newLayer) })

export const toFourth = (document: Loose): Loose =>
  isRecord(document.shot) ? { ...document, shot: newShot(document.shot) } : document
