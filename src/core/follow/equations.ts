// Equations as many as there are unknowns.

/** Solves n equations in n unknowns, rows of n + 1 numbers; null where they do not settle it (Gauss, with the largest pivot). */
export function solved(rows: number[][]): number[] | null {
  const n = rows.length
  for (let i = 0; i < n; i++) {
    let best = i
    for (let j = i + 1; j < n; j++) if (Math.abs(rows[j]![i]!) > Math.abs(rows[best]![i]!)) best = j
    ;[rows[i], rows[best]] = [rows[best]!, rows[i]!]
    const pivot = rows[i]![i]!
    if (!(Math.abs(pivot) > 1e-12)) return null
    for (let j = 0; j < n; j++) {
      if (j === i) continue
      const share = rows[j]![i]! / pivot
      for (let m = i; m <= n; m++) rows[j]![m]! -= share * rows[i]![m]!
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!)
}
