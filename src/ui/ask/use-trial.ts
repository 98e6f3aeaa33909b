import { useCallback, useEffect, useRef } from 'react'
import { type ArgsOf, type EditName, editIn, gestureLeft, useSend } from '../../app/store'
import { newId } from '../../core/shot'

/**
 * Shows on the picture what an answer would do, while it is being given: whenever the arguments say something else, the edit is
 * made anew from the shot as it was before the question. All of it is one step of the history. Null: nothing is to be
 * done. Returns what takes it back.
 */
export function useTrial<N extends EditName>(name: N, args: ArgsOf<N> | null): () => void {
  const send = useSend()
  const gesture = useRef(newId())
  const latest = useRef(args)
  latest.current = args
  const said = JSON.stringify(args)
  // biome-ignore lint/correctness/useExhaustiveDependencies: what they say counts, not which objects say it
  useEffect(() => {
    send(gestureLeft(gesture.current))
    if (latest.current) send(editIn(gesture.current, name, ...latest.current))
  }, [send, name, said])
  return useCallback(() => void send(gestureLeft(gesture.current)), [send])
}
