import { useEffect, useRef, useState } from 'react'
import { takeEarlyLetters } from '../../app/engine/early-letters'
import { writeLetters } from '../../app/engine/lettering'
import { getMedia } from '../../app/storage/projects'
import { type Camera, typingSet, useSend } from '../../app/store'
import { after } from '../../core/affine'
import { lettersFrame } from '../../core/graphic'
import { sample } from '../../core/keys'
import { type Layer, newId, placeMap } from '../../core/shot'
import { layoutAt } from '../../core/source'
import { useLetters } from '../graphic/use-letters'
import { useEngine } from './engine-context'
import { onScreen } from './piece-space'

const CSS_ALIGN = { left: 'left', middle: 'center', right: 'right' } as const

const familyOf = (digest: string): string => `letters ${digest.slice(0, 16)}`

/** Fonts of the shot as the page knows them, so that its caret stands where the letters do. */
function usePageFonts(digests: readonly string[]): boolean {
  const [ready, setReady] = useState(false)
  const key = digests.join(' ')
  useEffect(() => {
    let left = false
    const load = async (digest: string) => {
      const name = familyOf(digest)
      if ([...document.fonts].some(f => f.family.replaceAll('"', '') === name)) return
      const blob = await getMedia(digest)
      if (!blob) return
      document.fonts.add(await new FontFace(name, await blob.arrayBuffer()).load())
    }
    Promise.all(key.split(' ').map(load))
      .catch(error => console.error('A font is not known to the page:', error))
      .finally(() => !left && setReady(true))
    return () => {
      left = true
    }
  }, [key])
  return ready
}

interface Props {
  layer: Layer
  frame: number
  camera: Camera
}

/** Letters typed where they stand: an empty sheet over the picture with a caret, and the picture follows. */
export function TypeOver({ layer, frame, camera }: Props) {
  const send = useSend()
  const engine = useEngine()
  const letters = useLetters(layer)
  const area = useRef<HTMLTextAreaElement>(null)
  const gesture = useRef(newId())
  const { source } = layer
  const ready = usePageFonts(source.kind === 'lettering' ? source.fonts : [])
  const isOpen = ready && letters !== null
  // All is chosen at first: whoever begins to type replaces it, or has done so already.
  useEffect(() => {
    const sheet = area.current
    if (!isOpen || !sheet) return
    sheet.focus()
    sheet.select()
    const typed = takeEarlyLetters()
    if (typed === '') return
    sheet.setRangeText(typed, 0, sheet.value.length, 'end')
    sheet.dispatchEvent(new Event('input', { bubbles: true }))
  }, [isOpen])
  // Whoever is done before the sheet was there has typed all the same.
  useEffect(
    () => () => {
      const typed = engine ? takeEarlyLetters() : ''
      if (engine && typed !== '') void writeLetters(layer.id, typed, engine, gesture.current)
    },
    [engine, layer.id],
  )
  if (source.kind !== 'lettering' || !letters || !ready) return null
  const layout = layoutAt(source, frame)
  const { size, leading, spacing, align } = layout
  const { top, height } = lettersFrame(letters, layout)
  // The page puts half of what a line is higher than its letters above them.
  const above = ((leading - letters.ascent - letters.descent) / 2) * size
  const width = 200 * size
  const left = align === 'left' ? 0 : align === 'right' ? -width : -width / 2
  const { a, b, c, d, x, y } = after(onScreen(camera), placeMap(layer, sample(layer.place, frame)))
  return (
    <textarea
      ref={area}
      aria-label="Type the letters"
      dir="auto"
      spellCheck={false}
      value={source.text}
      maxLength={10_000}
      onChange={event => engine && void writeLetters(layer.id, event.target.value, engine, gesture.current)}
      onBlur={() => send(typingSet(false))}
      onKeyDown={event => {
        event.stopPropagation()
        if (event.key === 'Escape') event.currentTarget.blur()
      }}
      className="absolute top-0 left-0 z-10 origin-top-left resize-none overflow-hidden border-0 bg-transparent p-0 whitespace-pre text-transparent caret-lime outline-none selection:bg-lime/30"
      style={{
        transform: `matrix(${a}, ${b}, ${c}, ${d}, ${x}, ${y}) translate(${left}px, ${top - above}px)`,
        width,
        height: height + 2 * Math.abs(above) + size,
        fontFamily: source.fonts.map(f => `"${familyOf(f)}"`).join(', '),
        fontSize: size,
        lineHeight: leading,
        letterSpacing: `${spacing}em`,
        textAlign: CSS_ALIGN[align],
        fontVariationSettings: Object.entries(source.axes)
          .map(([tag, value]) => `"${tag}" ${value}`)
          .join(', '),
      }}
    />
  )
}
