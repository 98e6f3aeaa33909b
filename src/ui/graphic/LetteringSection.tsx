import { AlignCenter, AlignLeft, AlignRight } from 'lucide-react'
import { useRef } from 'react'
import { writeLetters } from '../../app/engine/lettering'
import { editIn, projectOf, useSend, useStore } from '../../app/store'
import { ALIGNS, type Align } from '../../core/graphic'
import { type FontAxis, type Layer, newId } from '../../core/shot'
import { SOURCES } from '../../core/source'
import { Choice } from '../common/Choice'
import { NumberField } from '../common/NumberField'
import { CommandButton } from '../stack/CommandButton'
import { ValueField } from '../stack/ValueField'
import { useEngine } from '../stage/engine-context'
import { CastFields } from './CastFields'
import { FillField } from './FillField'
import { FontMenu } from './FontMenu'
import { useLettersFrame } from './use-letters'

const ICONS: Readonly<Record<Align, typeof AlignLeft>> = { left: AlignLeft, middle: AlignCenter, right: AlignRight }

/** What axes of fonts are called, where their tag is one that all use. */
const AXES: Readonly<Record<string, string>> = {
  wght: 'Weight',
  wdth: 'Width',
  slnt: 'Slant',
  ital: 'Italic',
  opsz: 'Fineness',
  SOFT: 'Softness',
  WONK: 'Wonk',
  CASL: 'Casual',
  CRSV: 'Cursive',
  MONO: 'Evenness',
}

const axisName = ({ tag }: FontAxis): string => AXES[tag] ?? tag

const NOTHING = { left: -200, top: -60, width: 400, height: 120 }

/** What letters say, what they are set in and how they look. */
export function LetteringSection({ layer }: { layer: Layer }) {
  const send = useSend()
  const engine = useEngine()
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const readOnly = useStore(s => s.view.readOnly)
  const frame = useStore(s => s.view.frame)
  const over = useLettersFrame(layer, frame) ?? NOTHING
  const gesture = useRef('')
  const { source } = layer
  if (source.kind !== 'lettering') return null
  const disabled = readOnly || layer.locked
  const change = (changes: object, g: string) => send(editIn(g, 'changeGraphic', layer.id, changes))
  const [own, ...more] = source.fonts.map(digest => takes.find(t => t.digest === digest)?.font)
  const axes = own?.axes ?? []
  const others = [...new Set(more.flatMap(font => font?.family ?? []))].filter(family => family !== own?.family)
  const shown = axes.filter(a => a.most > a.least)
  const { values } = SOURCES.lettering
  return (
    <div className="flex flex-col gap-2 pt-2">
      <textarea
        aria-label="What the letters say"
        dir="auto"
        rows={Math.min(6, source.text.split('\n').length + 1)}
        value={source.text}
        disabled={disabled}
        maxLength={10_000}
        onFocus={() => {
          gesture.current = newId()
        }}
        onChange={event => engine && void writeLetters(layer.id, event.target.value, engine, gesture.current)}
        onKeyDown={event => event.key === 'Escape' && event.currentTarget.blur()}
        className="w-full resize-none rounded-lg bg-ground px-2 py-1 outline-none focus:outline-2 focus:outline-lime"
      />
      <div className="flex items-center gap-2">
        <div className="min-w-0 flex-1">
          <FontMenu layer={layer.id} fonts={source.fonts} disabled={disabled} />
        </div>
        <Choice
          label="Lines stand"
          value={source.align}
          disabled={disabled}
          options={ALIGNS.map(value => {
            const Icon = ICONS[value]
            return { value, name: value, icon: <Icon size={14} /> }
          })}
          onChange={align => change({ align }, newId())}
        />
      </div>
      {others.length > 0 && <p className="text-xs text-quiet">What it lacks is set in {others.join(', ')}.</p>}
      <div className="grid grid-cols-2 gap-x-2.5 gap-y-1.5">
        {Object.entries(values!).map(([of, { name, least, most, initial, ...number }]) => (
          <ValueField
            key={of}
            layer={layer}
            path={{ of, source: true }}
            label={name}
            min={least}
            max={most}
            initial={initial}
            {...number}
          />
        ))}
        {shown.map(axis => (
          <NumberField
            key={axis.tag}
            label={axisName(axis)}
            value={source.axes[axis.tag] ?? axis.initial}
            min={axis.least}
            max={axis.most}
            initial={axis.initial}
            digits={axis.most - axis.least <= 2 ? 2 : 0}
            step={(axis.most - axis.least) / 200}
            disabled={disabled}
            onChange={(v, g) => change({ axes: { ...source.axes, [axis.tag]: v } }, g)}
          />
        ))}
      </div>
      <FillField
        fill={source.fill}
        over={over}
        canBeNone
        disabled={disabled}
        onChange={(fill, g) => change({ fill }, g)}
      />
      <CastFields border={source.border} shadow={source.shadow} usual={4} disabled={disabled} onChange={change} />
      <p className="flex flex-wrap gap-1">
        <CommandButton id="type">Type on the picture</CommandButton>
        <CommandButton id="letters-pieces">Make pieces of them</CommandButton>
      </p>
    </div>
  )
}
