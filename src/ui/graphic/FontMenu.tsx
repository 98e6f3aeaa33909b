import { ChevronDown } from 'lucide-react'
import { useRef, useState } from 'react'
import { bringFonts, setFonts, shippedFonts } from '../../app/engine/lettering'
import { SHIPPED, type ShippedFont } from '../../app/fonts/shipped'
import { projectOf, useStore } from '../../app/store'
import { newId, type Take } from '../../core/shot'
import { Menu, MenuItem } from '../common/Menu'
import { sayProblem } from '../common/problem'
import { useEngine } from '../stage/engine-context'

const FONT_FILES = '.ttf,.otf,.woff,.woff2'

/** A font of the program by the name that only this menu knows it by. */
const previewName = ({ name }: ShippedFont): string => `preview ${name}`

/** Lets the names of fonts be shown in themselves. */
function usePreviews(): () => void {
  const loaded = useRef(false)
  return () => {
    if (loaded.current) return
    loaded.current = true
    for (const font of SHIPPED) {
      const face = new FontFace(previewName(font), `url(${font.urls[0]})`)
      document.fonts.add(face)
      face.load().catch(error => console.error(`“${font.name}” is not shown:`, error))
    }
  }
}

/** Which font letters are set in: one of the program's, one that the shot has already, or one's own file. */
export function FontMenu({ layer, fonts, disabled }: { layer: string; fonts: readonly string[]; disabled: boolean }) {
  const engine = useEngine()
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const [busy, setBusy] = useState(false)
  const picker = useRef<HTMLInputElement>(null)
  const load = usePreviews()
  const here = takes.filter((t): t is Take & { font: NonNullable<Take['font']> } => t.font !== undefined)
  const now = here.find(t => t.digest === fonts[0])
  const own = here.filter(
    t => !SHIPPED.some(({ name }) => t.font.family.startsWith(name)) && !/^Noto /.test(t.font.family),
  )
  const set = async (bring: () => Promise<readonly string[]>) => {
    if (!engine) return
    setBusy(true)
    try {
      await setFonts(layer, await bring(), engine, newId())
    } catch (error) {
      sayProblem(`The font cannot be used: ${error instanceof Error ? error.message : String(error)}.`)
    } finally {
      setBusy(false)
    }
  }
  return (
    <>
      <Menu
        align="start"
        trigger={
          <button
            type="button"
            disabled={disabled || busy}
            onPointerDown={load}
            onFocus={load}
            aria-label={`Font: ${now?.font.family ?? 'missing'}`}
            className="flex w-full items-center justify-between gap-2 rounded-md bg-ground px-2 py-1 text-left"
          >
            <span className="truncate">{now?.font.family ?? '◆ missing'}</span>
            <ChevronDown size={14} className="shrink-0 text-quiet" />
          </button>
        }
      >
        {SHIPPED.map(font => (
          <MenuItem key={font.name} onSelect={() => void set(() => shippedFonts(font, engine!))}>
            <span className="flex w-56 flex-col">
              <span className="truncate text-lg leading-tight" style={{ fontFamily: `"${previewName(font)}"` }}>
                {font.name}
              </span>
              <span className="text-xs text-quiet">{font.like}</span>
            </span>
          </MenuItem>
        ))}
        {own.map(({ digest, font }) => (
          <MenuItem key={digest} onSelect={() => void set(async () => [digest])}>
            {font.family}
          </MenuItem>
        ))}
        <MenuItem onSelect={() => picker.current?.click()}>Bring in a font of your own…</MenuItem>
      </Menu>
      <input
        ref={picker}
        type="file"
        hidden
        accept={FONT_FILES}
        aria-label="Bring in a font"
        onChange={event => {
          const files = [...(event.target.files ?? [])]
          event.target.value = ''
          if (files.length > 0) void set(() => bringFonts(files, engine!))
        }}
      />
    </>
  )
}
