import { createContext, useContext } from 'react'
import type { StageEngine } from '../../app/engine/stage-engine'

/** The running stage of the open shot; null until it has started. */
export const EngineContext = createContext<StageEngine | null>(null)
export const useEngine = (): StageEngine | null => useContext(EngineContext)
