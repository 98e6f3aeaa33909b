import { useSyncExternalStore } from 'react'
import type { TakeReport } from '../../app/engine/reports'
import { useReports } from '../stage/engine-context'

const nothing = () => () => {}

/** What is known of a take, as it comes. */
export function useReport(take: string): TakeReport | null {
  const reports = useReports()
  return useSyncExternalStore(reports?.subscribe ?? nothing, () => reports?.of(take) ?? null)
}
