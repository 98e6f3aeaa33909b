// How large a document may be: read by the schema, by fields and by edits alike; also what keeps a hostile one from exhausting the machine.

export interface Range {
  readonly least: number
  readonly most: number
}

export const LIMITS = {
  /** Px of a picture's side. */
  side: 8192,
  /** Frames: a day at 60 fps would be more than anyone cuts here. */
  length: 1_000_000,
  layers: 250,
  looks: 16,
  pieces: 64,
  /** Of an outline. */
  points: 5000,
  keys: 20_000,
  takes: 1000,
  /** Bytes of a font, packed and not. */
  font: 64 * 2 ** 20,
  /** Of a variable font. */
  axes: 32,
  acts: 200,
  marks: 500,
  copies: 60,
  /** Frames a second of a shot. */
  rate: { least: 1, most: 1000 },
  /** Frames a second of a take. */
  takeRate: { least: 1e-6, most: 1e6 },
  /** Seconds of a take. */
  seconds: 1e6,
  /** Least and most, either way. */
  speed: { least: 0.01, most: 100 },
  scale: { least: 0.001, most: 1000 },
  /** Degrees of a frame. */
  shutter: 720,
  phase: { least: -360, most: 360 },
  /** Times as loud. */
  gain: 16,
  depth: 8,
  name: 200,
  /** px; feathers and growth. */
  feather: 4000,
  coordinate: 1_000_000,
  /** What one frame may cost, in pixels that are composited; see `workOf`. */
  work: 4e9,
  /** Bytes of a project's JSON. */
  json: 32 * 1024 * 1024,
} as const

export const within = (value: number, { least, most }: Range): number => Math.max(least, Math.min(most, value))
