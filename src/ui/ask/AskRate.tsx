import { useEffect, useState } from 'react'
import { LIMITS } from '../../core/shot'
import { nearestRate, type Rate } from '../../core/time'
import { NumberField } from '../common/NumberField'
import { Ask } from './Ask'

interface Question {
  name: string
  count: number
  answer: (rate: Rate | null) => void
}

let listener: ((question: Question) => void) | null = null

/** Asks at which rate numbered stills were taken; null if they are left out. */
export const askRate = (name: string, count: number): Promise<Rate | null> =>
  new Promise(resolve => {
    if (listener) listener({ name, count, answer: resolve })
    else resolve(null)
  })

/** Where the question stands while it is asked. */
export function AskRate() {
  const [question, setQuestion] = useState<Question | null>(null)
  const [rate, setRate] = useState(25)
  useEffect(() => {
    listener = setQuestion
    return () => {
      listener = null
    }
  }, [])
  if (!question) return null
  const { name, count, answer } = question
  const done = (said: Rate | null) => {
    setQuestion(null)
    answer(said)
  }
  return (
    <Ask
      title={`${count} numbered stills`}
      action="Bring them in"
      onClose={() => done(null)}
      onDone={() => done(nearestRate(rate))}
      note={`“${name}” comes in as one take, ${(count / rate).toFixed(1)} s long.`}
    >
      <NumberField
        label="Frames a second"
        value={rate}
        min={LIMITS.rate.least}
        max={240}
        digits={3}
        initial={25}
        onChange={setRate}
      />
    </Ask>
  )
}
