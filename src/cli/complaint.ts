import { ForeignFilm } from '../media/problem'

/** Something the person at the terminal can put right; the message says what. */
export class Complaint extends Error {
  override name = 'Complaint'
}

/** What a system says of files, in words. */
const SYSTEM: Readonly<Record<string, string>> = {
  ENOSPC: 'there is no room left on the disk',
  EFBIG: 'files may be no larger there',
  EDQUOT: 'there is no room left that is yours',
  EACCES: 'it may not be read or written there',
  EPERM: 'it may not be read or written there',
  EROFS: 'nothing can be written on that disk',
  ENOTDIR: 'part of its path is no folder',
  EEXIST: 'a file of that name is in the way',
  EISDIR: 'a folder of that name is in the way',
  ENOENT: 'there is no such file or folder',
  ENAMETOOLONG: 'its name is too long',
}

/** The sentence for what went wrong; null where it is nobody's fault but this program's. */
export function sentenceOf(error: unknown): string | null {
  if (!(error instanceof Error)) return null
  if (error instanceof ForeignFilm) return `${error.message} “ghost convert” makes such films readable.`
  if (error instanceof Complaint || error.name === 'MediaProblem') return error.message
  const { code, path, syscall } = error as NodeJS.ErrnoException
  // Decoders have numbers for codes.
  if (typeof code !== 'string') return null
  if (code.startsWith('ERR_PARSE_ARGS')) return error.message
  if (!syscall) return null
  const what = SYSTEM[code] ?? error.message
  return path ? `“${path}”: ${what}.` : `${what[0]!.toUpperCase()}${what.slice(1)}.`
}
