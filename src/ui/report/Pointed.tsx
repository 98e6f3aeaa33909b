// The frame that is pointed at, large, and under it how it differs from the plate.
import { useEffect, useRef, useState } from 'react'
import { projectOf, useStore } from '../../app/store'
import type { Take } from '../../core/shot'
import { frameToSeconds } from '../../core/time'
import { plainContext } from '../common/plain-canvas'
import { useDerived } from '../stage/engine-context'
import { useReport } from './use-report'

const WIDTH = 362
/** By how much differences are shown larger than they are. */
const AMPLIFIED = 6

/** The difference of two pictures, each code many times as large. */
function drawDifference(c: CanvasRenderingContext2D, one: ImageBitmap, other: ImageBitmap, height: number): void {
  c.globalCompositeOperation = 'source-over'
  c.drawImage(one, 0, 0, WIDTH, height)
  c.globalCompositeOperation = 'difference'
  c.drawImage(other, 0, 0, WIDTH, height)
  const picture = c.getImageData(0, 0, WIDTH, height)
  for (let i = 0; i < picture.data.length; i += 4) {
    for (let channel = 0; channel < 3; channel++) picture.data[i + channel] = picture.data[i + channel]! * AMPLIFIED
  }
  c.putImageData(picture, 0, 0)
}

/** Nought has no sign. */
const hundredths = (value: number): string => (Math.round(value * 100) / 100 || 0).toFixed(2)

export function Pointed({ take, frame }: { take: Take; frame: number }) {
  const derived = useDerived()
  const report = useReport(take.digest)
  const plateName = useStore(s => projectOf(s)?.takes.find(t => t.digest === report?.against?.plate)?.name)
  const [picture, difference] = [useRef<HTMLCanvasElement>(null), useRef<HTMLCanvasElement>(null)]
  const [isLost, setLost] = useState(false)
  const film = take.picture?.kind === 'film' ? take.picture : null
  const height = film ? Math.round((WIDTH * film.size.height) / film.size.width) : 1
  const plate = report?.against
  useEffect(() => {
    if (!derived || !film) return
    let isWanted = true
    const draw = async () => {
      const own = await derived.large(take.digest, frameToSeconds(frame, film.rate) + 1e-3, height)
      const other = plate ? await derived.large(plate.plate, plate.from, height) : null
      const [c, d] = [picture.current?.getContext('2d'), difference.current && plainContext(difference.current)]
      if (isWanted && own) c?.drawImage(own, 0, 0, WIDTH, height)
      if (isWanted && own && other && d) drawDifference(d, own, other, height)
      if (isWanted) setLost(own === null)
      own?.close()
      other?.close()
    }
    // Whoever points on does not wait for what was pointed at.
    const timer = setTimeout(() => draw().catch(() => setLost(true)), 30)
    return () => {
      isWanted = false
      clearTimeout(timer)
    }
  }, [derived, film, take.digest, frame, height, plate, picture, difference])
  const seen = report?.seen[frame]
  return (
    <figure className="flex flex-col gap-2 bg-well p-2">
      <canvas ref={picture} width={WIDTH} height={height} aria-label={`Frame ${frame + 1} of ${take.name}`} />
      <figcaption className="text-quiet">
        <span className="text-ink">{take.name}</span>, frame {frame + 1}
        {isLost && <span className="text-warn"> ◆ cannot be shown</span>}
        {seen && (
          <span className="block tabular-nums">
            {hundredths(seen.movement.x)}, {hundredths(seen.movement.y)} px · {hundredths(Math.log2(seen.gain[1]))}{' '}
            stops · {(seen.share * 100).toFixed(1)}% somebody
          </span>
        )}
      </figcaption>
      {plate && (
        <>
          <canvas ref={difference} width={WIDTH} height={height} aria-label="Difference to the plate" />
          <figcaption className="text-quiet">
            difference to {plateName ?? 'the plate'}, {AMPLIFIED} times as large
          </figcaption>
        </>
      )}
    </figure>
  )
}
