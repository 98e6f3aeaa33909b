// How large a document may be; also what keeps a hostile one from exhausting the machine.

export const LIMITS = {
  side: 8192,
  /** Frames: a day at 60 fps would be more than anyone cuts here. */
  length: 1_000_000,
  layers: 250,
  pieces: 64,
  keys: 20_000,
  takes: 1000,
  acts: 200,
  marks: 500,
  copies: 60,
  /** Least and most, either way. */
  speed: { least: 0.01, most: 100 },
  depth: 8,
  name: 200,
  /** px; feathers and growth. */
  feather: 4000,
  coordinate: 1_000_000,
  /** Bytes of a project's JSON. */
  json: 32 * 1024 * 1024,
} as const
