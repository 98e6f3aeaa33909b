// What can go wrong with media: with a file, as a sentence for the person who brought it, or with a wish.

/** The message names the file, says what is wrong and what to do. */
export class MediaProblem extends Error {
  override name = 'MediaProblem'
}

/** It is a film, but in a coding or container that cannot be read here. */
export class ForeignFilm extends MediaProblem {}

/** A newer wish has made this one pointless. */
export class Dropped extends Error {
  override name = 'Dropped'
}
