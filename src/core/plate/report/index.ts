// What a take's frames say about the camera, the light and who is there, in plain words.
import { aboutCamera } from './camera'
import type { Finding, Seen } from './finding'
import { aboutLight } from './light'
import { aboutPeople } from './people'
import { aboutPicture } from './picture'

export type { Advice, Finding, Measured, Seen } from './finding'

/** Everything worth a word about a take: of the camera, the light, who is there, and the picture. */
export function findings(frames: readonly Seen[]): Finding[] {
  if (frames.length === 0) return []
  const people = aboutPeople(frames)
  // Against a plate of another place nothing else is worth a word.
  if (people.some(f => f.isFault)) return people
  return [...aboutCamera(frames), ...aboutLight(frames), ...people, ...aboutPicture(frames)]
}
