/** A number that a kind of look or source has, which can carry keys. */
export interface NumberKind {
  name: string
  unit?: string
  least: number
  most: number
  /** What it is before anybody changes it. */
  initial: number
  /** How far an arrow key moves it, and decimals that are shown. */
  step?: number
  digits?: number
  /** Whether it is counted in px of the shot. */
  isLength?: true
}

/** What each number is before anybody changes it. */
export const initialNumbers = (kinds: Readonly<Record<string, NumberKind>>): Record<string, number> =>
  Object.fromEntries(Object.entries(kinds).map(([name, { initial }]) => [name, initial]))
