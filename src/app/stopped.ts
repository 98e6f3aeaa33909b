/** Somebody has asked for it to be stopped: no problem, and nothing is left behind. */
export class Stopped extends Error {
  override name = 'Stopped'
}
