// Timing inside one process: a warm-up, then the median of several runs.

/** Milliseconds that something takes. */
export const timed = async (work: () => unknown): Promise<number> => {
  const began = performance.now()
  await work()
  return performance.now() - began
}

const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!

export async function median(runs: number, work: () => unknown): Promise<number> {
  await work()
  const times: number[] = []
  for (let i = 0; i < runs; i++) times.push(await timed(work))
  return middle(times)
}

/** Two works measured in turns, so that the changing pace of a machine meets both: medians, and that of the ratio of each turn. */
export async function inTurns(
  runs: number,
  one: () => Promise<number>,
  other: () => Promise<number>,
): Promise<{ one: number; other: number; ratio: number }> {
  const turns: [number, number][] = []
  for (let i = 0; i < runs; i++) turns.push([await one(), await other()])
  const [ones, others] = [turns.map(t => t[0]), turns.map(t => t[1])]
  return { one: middle(ones), other: middle(others), ratio: middle(turns.map(([a, b]) => a / b)) }
}

/** The value that a share 0..1 of the values lies below. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!
}

export interface Row {
  what: string
  goal: string
  measured: string
  /** The number that the goal is about. */
  value: number
  /** null where the goal is not a bound on `value`. */
  met: boolean | null
}

export const atMost = (what: string, bound: number, value: number, unit: string, detail: string): Row => ({
  what,
  goal: `at most ${bound} ${unit}`.trim(),
  measured: `${value.toFixed(2)} ${unit} (${detail})`.replace('  ', ' '),
  value,
  met: value <= bound,
})

export function table(rows: readonly Row[]): string {
  const lines = rows.map(
    r => `| ${r.what} | ${r.goal} | ${r.measured} | ${r.met === null ? '' : r.met ? 'yes' : 'no'} |`,
  )
  return ['| what | to reach | measured | reached |', '|---|---|---|---|', ...lines].join('\n')
}
