import { vi } from 'vitest'

/** Until a check holds, however slow the machine is. */
export const soon = <T>(check: () => T | Promise<T>): Promise<T> => vi.waitFor(check, { timeout: 60_000 })
