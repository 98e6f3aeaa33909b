// How long data is as text, told part by part: of what has not changed it is known already.

const known = new WeakMap<object, number>()

/** The length of plain data as JSON, without making that. What it has been asked about must not be changed any more. */
export function textLength(data: unknown): number {
  if (typeof data === 'number') return Number.isFinite(data) ? String(data).length : 4
  if (typeof data !== 'object' || data === null) return JSON.stringify(data)?.length ?? 0
  const found = known.get(data)
  if (found !== undefined) return found
  const length = Array.isArray(data) ? listLength(data) : recordLength(data as Record<string, unknown>)
  known.set(data, length)
  return length
}

const listLength = (list: readonly unknown[]): number =>
  // What is nothing in a list is written as null.
  list.reduce((sum: number, entry) => sum + (entry === undefined ? 4 : textLength(entry)), 2 + commas(list.length))

function recordLength(record: Record<string, unknown>): number {
  const entries = Object.entries(record).filter(([, value]) => value !== undefined)
  return entries.reduce(
    (sum, [name, value]) => sum + JSON.stringify(name).length + 1 + textLength(value),
    2 + commas(entries.length),
  )
}

const commas = (count: number): number => Math.max(0, count - 1)
