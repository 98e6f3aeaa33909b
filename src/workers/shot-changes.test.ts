import fc from 'fast-check'
import { expect, it } from 'vitest'
import { testLayer, testShot } from '../testing/documents'
import { shotReceiver, shotSender } from './shot-changes'

it('arrives whole, whatever was changed, added, removed or reordered, though only changes travel', () => {
  const states = fc.array(fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { maxLength: 4 }), {
    minLength: 1,
    maxLength: 8,
  })
  fc.assert(
    fc.property(states, orders => {
      const send = shotSender()
      const receive = shotReceiver()
      const layers = [0, 1, 2, 3].map(i => testLayer(i))
      orders.forEach((order, i) => {
        const touched = order[0]
        if (touched !== undefined) layers[touched] = { ...layers[touched]!, name: `state ${i}` }
        const shot = testShot(order.map(j => layers[j]!))
        const wire = structuredClone(send(shot))
        expect(receive(wire)).toEqual(shot)
        if (i > 0) expect(wire.changed.length).toBeLessThanOrEqual(order.length)
      })
    }),
  )
  const send = shotSender()
  const shot = testShot([testLayer(0), testLayer(1)])
  expect(send(shot).changed).toHaveLength(2)
  expect(send({ ...shot, name: 'other' }).changed).toHaveLength(0)
})
