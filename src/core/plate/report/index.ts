// What a take's frames say about the camera, the light and who is there, in plain words.
import { aboutCamera } from './camera'
import type { Finding, Seen } from './finding'
import { aboutLight } from './light'
import { aboutPeople } from './people'
import { aboutPicture } from './picture'

export type { Advice, Finding, Measured, Seen } from './finding'
export { ON_THE_WAY } from './people'

/**
 * Everything worth a word about a take: of the camera, the light, who is there, and the picture. `first`: the number that its first frame has where this is read, such as 1 at the
 * workbench and 0 in a terminal, whose files are numbered so; `from` and `to` are counted from 0 all the same.
 */
export function findings(frames: readonly Seen[], first = 0): Finding[] {
  if (frames.length === 0) return []
  const people = aboutPeople(frames, first)
  // Against a plate of another place or light nothing else is worth a word.
  if (people.some(f => f.isFault)) return people
  const picture = aboutPicture(frames, first)
  // Where somebody stands in the plate, nobody seems to be in frames that show them at the same place.
  const isOccupied = picture.some(f => f.advice === 'empty')
  const there = isOccupied ? people.filter(f => f.advice !== 'plate') : people
  return [...aboutCamera(frames, first), ...aboutLight(frames, first), ...there, ...picture]
}
