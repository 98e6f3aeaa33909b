import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { testProject } from '../../testing/documents'
import { editIn, heldOf, letGo, opened, sendByHand, shotOf, store, undo, viewReset } from '.'

const layer = () => shotOf(store.getState())!.layers[0]!
const slide = (from: number) => sendByHand(editIn('drag', 'slideLayers', [{ layer: layer().id, from }]))

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('requestAnimationFrame', (then: () => void) => setTimeout(then, 16))
  store.dispatch(viewReset({}))
  store.dispatch(opened(testProject()))
})

afterEach(() => {
  letGo()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('what a hand does', () => {
  it('is held at once, reaches the document at its own pace, the latest for all before, and is one step back', () => {
    const began = layer().span.from
    const changes = vi.fn()
    const stop = store.subscribe(changes)
    slide(began + 3)
    expect(heldOf(layer().id)).toMatchObject({ slid: 3 })
    expect(layer().span.from).toBe(began)
    vi.advanceTimersByTime(1)
    expect(layer().span.from).toBe(began + 3)
    expect(heldOf(layer().id)).toMatchObject({ slid: 0 })
    for (let by = 4; by <= 9; by++) slide(began + by)
    expect(heldOf(layer().id)).toMatchObject({ slid: 6 })
    vi.advanceTimersByTime(1000)
    expect(layer().span.from).toBe(began + 9)
    expect(changes).toHaveBeenCalledTimes(2)
    stop()
    letGo()
    expect(heldOf(layer().id)).toBeNull()
    store.dispatch(undo())
    expect(layer().span.from).toBe(began)
  })

  it('is in the document once the hand lets go, whatever the pace', () => {
    slide(2)
    vi.advanceTimersByTime(1)
    slide(40)
    letGo()
    expect(layer().span.from).toBe(40)
    expect(heldOf(layer().id)).toBeNull()
  })

  it('shows what else is done to a layer as it will be', () => {
    const { id, span } = layer()
    sendByHand(editIn('trim', 'trimLayers', 'to', [{ layer: id, frame: span.to - 5 }], testProject().takes))
    expect(heldOf(id)).toMatchObject({ slid: null, layer: { span: { to: span.to - 5 } } })
  })

  it('stays away from a shot that is only looked at', () => {
    store.dispatch(viewReset({ readOnly: true }))
    slide(5)
    expect(heldOf(layer().id)).toBeNull()
  })
})
