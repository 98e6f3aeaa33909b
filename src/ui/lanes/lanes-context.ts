import { createContext, useContext } from 'react'
import type { TimeScale } from '../../app/time-scale'

/** What everything in the lanes shares: their scale, and the line that shows what a drag has met. */
export interface LanesShared {
  scale: TimeScale
  showMeeting(frame: number | null): void
}

export const LanesContext = createContext<LanesShared | null>(null)

export function useLanes(): LanesShared {
  const shared = useContext(LanesContext)
  if (!shared) throw new Error('This belongs inside the lanes.')
  return shared
}
