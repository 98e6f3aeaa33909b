// From version 1 to 2: takes tell picture from sound, layers learn time, place, fades and copies, shots learn marks.
// What is malformed is handed on as it is; validation names it afterwards.

type Loose = Record<string, unknown>

const isRecord = (value: unknown): value is Loose => typeof value === 'object' && value !== null
const each = (value: unknown, change: (record: Loose) => Loose): unknown =>
  Array.isArray(value) ? value.map(entry => (isRecord(entry) ? change(entry) : entry)) : value

interface Size {
  width: number
  height: number
}

function newTake(take: Loose): Loose {
  const { size, rate, seconds, ...rest } = take
  return { ...rest, picture: { kind: 'film', size, rate, seconds, varies: false }, marked: null, acts: [] }
}

/** A place that told the top left corner, told by the middle: keys and all, since both move alike between keys. */
function newPlace(place: unknown, { x, y }: { x: number; y: number }): unknown {
  if (!isRecord(place)) return place
  if (Array.isArray(place.keys)) {
    return { keys: each(place.keys, key => ({ ...key, value: newPlace(key.value, { x, y }) })) }
  }
  const scale = Number(place.scale)
  return { ...place, x: Number(place.x) + x * scale, y: Number(place.y) + y * scale, angle: 0 }
}

function newLayer(layer: Loose, sizes: Map<unknown, Size>): Loose {
  const source = isRecord(layer.source) ? layer.source : {}
  const inner = isRecord(source.shot) ? source.shot : null
  const size = (inner ? inner.size : sizes.get(source.digest)) as Size | undefined
  const anchor = { x: Number(size?.width ?? 0) / 2, y: Number(size?.height ?? 0) / 2 }
  return {
    ...layer,
    source: inner ? { ...source, shot: newShot(inner, sizes) } : { ...source, use: 'both' },
    timing: isRecord(layer.timing) ? { ...layer.timing, speed: 1, mixed: null } : layer.timing,
    place: newPlace(layer.place, anchor),
    anchor,
    flip: { across: false, down: false },
    fade: { in: 0, out: 0 },
    blend: 'normal',
    copies: null,
    sound: isRecord(layer.sound) ? { ...layer.sound, fade: { in: 0, out: 0 } } : layer.sound,
    locked: false,
    tag: 'none',
  }
}

function newShot(shot: Loose, sizes: Map<unknown, Size>): Loose {
  return { ...shot, layers: each(shot.layers, layer => newLayer(layer, sizes)), marks: [] }
}

export function toSecond(document: Loose): Loose {
  const takes = Array.isArray(document.takes) ? document.takes.filter(isRecord) : []
  const sizes = new Map(takes.map(t => [t.digest, t.size as Size]))
  const shot = isRecord(document.shot) ? newShot(document.shot, sizes) : document.shot
  return { ...document, takes: each(document.takes, newTake), shot }
}
