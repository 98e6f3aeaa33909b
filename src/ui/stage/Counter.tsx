import { useState } from 'react'
import { commandOf, shownKeys } from '../../app/commands'
import { countingSet, stagedFrame, store, useSend, useStore } from '../../app/store'
import { counter, type Rate } from '../../core/time'
import { Tip } from '../common/Tip'
import { useEngine } from './engine-context'

/** A frame that is typed: Enter goes there, anything else leaves the playhead where it is. */
function TypedFrame({ length }: { length: number }) {
  const send = useSend()
  const engine = useEngine()
  const [typed, setTyped] = useState(() => String(stagedFrame(store.getState()) + 1))
  const leave = () => send(countingSet(false))
  return (
    <input
      // biome-ignore lint/a11y/noAutofocus: it appears because somebody wants to type into it
      autoFocus
      aria-label="Frame to go to"
      inputMode="numeric"
      className="w-12 rounded-md bg-ground px-1 text-right text-ink outline-2 outline-lime"
      value={typed}
      onFocus={event => event.target.select()}
      onChange={event => setTyped(event.target.value)}
      onBlur={leave}
      onKeyDown={event => {
        if (event.key !== 'Enter' && event.key !== 'Escape') return
        const number = Number.parseInt(typed, 10)
        if (event.key === 'Enter' && Number.isFinite(number)) engine?.goTo(Math.min(length, Math.max(1, number)) - 1)
        leave()
      }}
    />
  )
}

/** The parts that change with every frame, and nothing round them. */
const Seconds = ({ rate }: { rate: Rate }) => counter(useStore(stagedFrame), rate)
const Frame = () => useStore(stagedFrame) + 1

/** Where the playhead is; a press on it and a number go somewhere else. */
export function Counter({ rate, length }: { rate: Rate; length: number }) {
  const send = useSend()
  const counting = useStore(s => s.view.counting)
  return (
    <>
      <span className="ml-3 font-display text-lg font-semibold" data-testid="counter">
        <Seconds rate={rate} />
      </span>
      {counting ? (
        <span className="ml-2 whitespace-nowrap text-quiet">
          frame <TypedFrame length={length} /> of {length}
        </span>
      ) : (
        <Tip text="Type a frame to go to" keys={shownKeys(commandOf('frame').keys)}>
          <button
            type="button"
            className="ml-2 whitespace-nowrap text-quiet hover:text-ink"
            data-testid="frame-number"
            onClick={() => send(countingSet(true))}
          >
            frame <Frame /> of {length}
          </button>
        </Tip>
      )}
    </>
  )
}
