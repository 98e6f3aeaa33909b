// Locks that tabs of one browser share.

/** Runs work that nobody else with the lock may do meanwhile; null, undone, if somebody has it and it is not waited for. */
export function alone<T>(name: string, work: () => Promise<T>, patience: 'now' | 'wait' = 'now'): Promise<T | null> {
  return navigator.locks.request(name, { ifAvailable: patience === 'now' }, lock =>
    lock ? work() : null,
  ) as Promise<T | null>
}

/** Runs work that others of its kind may do too, but nobody alone. */
export function together<T>(name: string, work: () => Promise<T>): Promise<T> {
  return navigator.locks.request(name, { mode: 'shared' }, work) as Promise<T>
}

/** Takes a lock until it is released; null if somebody else has it. */
export function hold(name: string): Promise<(() => void) | null> {
  return new Promise((resolve, reject) => {
    const held = alone(name, () => new Promise<true>(release => resolve(() => release(true))))
    held.then(had => had === null && resolve(null), reject)
  })
}
