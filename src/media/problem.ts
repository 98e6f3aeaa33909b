// What can be wrong with a file, as a sentence for the person who brought it.

/** The message names the file, says what is wrong and what to do. */
export class MediaProblem extends Error {
  override name = 'MediaProblem'
}
