// A terminal's decoders, and the thread that they wait for.

/**
 * Lets decoders that wait for this thread between two pieces, as those of a terminal do, begin on the next one: they say
 * that one is done, are asked for more of it, and then for the next. A browser's go on by themselves.
 */
export async function listen(): Promise<void> {
  if (typeof setImmediate === 'undefined') return
  for (let turn = 0; turn < 2; turn++) await new Promise(done => setImmediate(done))
}
