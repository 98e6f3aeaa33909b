import { createContext, useContext } from 'react'
import type { CutOuts } from '../../app/engine/cut-outs'
import type { Derived } from '../../app/engine/derived'
import type { Reports } from '../../app/engine/reports'
import type { Session } from '../../app/engine/session'
import type { StageEngine } from '../../app/engine/stage-engine'

/** What runs for the open shot; null until it has started. */
export const SessionContext = createContext<Session | null>(null)
export const useEngine = (): StageEngine | null => useContext(SessionContext)?.stage ?? null
export const useDerived = (): Derived | null => useContext(SessionContext)?.derived ?? null
export const useCutOuts = (): CutOuts | null => useContext(SessionContext)?.cutOuts ?? null
export const useReports = (): Reports | null => useContext(SessionContext)?.reports ?? null
