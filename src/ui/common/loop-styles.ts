import type { LoopStyle } from '../../core/shot'

/** How a loop comes round, in words. */
export const LOOP_STYLES: readonly { value: LoopStyle; name: string }[] = [
  { value: 'cut', name: 'Hard cut' },
  { value: 'swing', name: 'There and back' },
  { value: 'dissolve', name: 'Dissolve' },
]
