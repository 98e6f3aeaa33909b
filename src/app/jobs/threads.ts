// Over how many threads long work is spread.

/** That each is reckoned with: it holds plates, frames and kernels of its own. */
const GIGABYTES = 2
/** More of them wait for the decoders and the disk rather than for processors. */
const MOST = 4

/** Half of the processors, as each thread has decoders beside it, and somebody looks on; 1..4. */
function threadsHere(): number {
  if (typeof navigator === 'undefined') return 1
  const { hardwareConcurrency = 1, deviceMemory = 4 } = navigator as Partial<Navigator> & { deviceMemory?: number }
  return Math.max(1, Math.min(MOST, Math.floor(hardwareConcurrency / 2), Math.floor(deviceMemory / GIGABYTES)))
}

export const THREADS = threadsHere()
