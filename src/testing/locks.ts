// Web Locks as Node lacks them, for tests of what tabs share.
interface Held {
  mode: 'shared' | 'exclusive'
  done: Promise<unknown>
}

/** A lock manager of its own; `navigator` is stubbed with it. */
export function fakeLocks() {
  const held = new Map<string, Held[]>()
  async function request(
    name: string,
    options: LockOptions | ((lock: unknown) => unknown),
    use?: (lock: unknown) => unknown,
  ) {
    const work = (use ?? options) as (lock: unknown) => unknown
    const { mode = 'exclusive', ifAvailable = false } = use ? (options as LockOptions) : {}
    for (;;) {
      const others = (held.get(name) ?? []).filter(h => mode === 'exclusive' || h.mode === 'exclusive')
      if (others.length === 0) break
      if (ifAvailable) return work(null)
      await Promise.race(others.map(h => h.done))
    }
    let release = () => {}
    const own: Held = { mode, done: new Promise<void>(resolve => (release = resolve)) }
    held.set(name, [...(held.get(name) ?? []), own])
    try {
      return await work({ name, mode })
    } finally {
      held.set(
        name,
        held.get(name)!.filter(h => h !== own),
      )
      release()
    }
  }
  return { request }
}
