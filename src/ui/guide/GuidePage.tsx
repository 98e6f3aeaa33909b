import { Link } from 'react-router'
import { COMMANDS, shownKeys } from '../../app/commands'
import { Ghost } from '../common/Ghost'

const FILMING = [
  'Put the camera on a tripod and do not touch it again. Start and stop it by remote, or throw the first second away.',
  'Lock focus, exposure and white balance. A camera that re-exposes when somebody walks in shows at every seam.',
  'Film the empty set for some seconds, before and after: that is the clean plate.',
  'Let whoever plays twice keep to one side of a line that you choose first. Mind the shadow: it crosses before the person does.',
  'Film long. One take with several acts in it is easier than several takes: the light has not changed between them.',
  'Lettering or a picture rides best on something flat with a pattern on it; where it is plain, mark four corners that differ from what is behind them.',
  'For slow motion film at a high rate, and place the take frame for frame.',
] as const

const READ: readonly [string, string][] = [
  ['Films', 'MP4, MOV, WebM, MKV with H.264, VP8, VP9 or AV1, of any rate, also a varying one'],
  ['Stills', 'PNG, JPEG, WebP, AVIF'],
  ['Drawings', 'SVG, drawn at whatever size they are seen; its paths, pasted, become outlines'],
  ['Fonts', 'TTF, OTF, WOFF, WOFF2, kept with the shot'],
  ['Sound', 'WAV, MP3, AAC, Opus, FLAC, Vorbis; one to six channels, any rate'],
  ['Converted', 'what a browser cannot read, such as HEVC, ProRes or MPEG-4 in AVI: offered where it is refused'],
  ['Numbered stills', 'chosen or dropped together, or in a folder: one take, at a rate that is asked for'],
  [
    'Written',
    'MP4 (H.264, AAC), WebM (VP9, Opus), frames as PNG, a layer’s matte as a film, outlines as SVG, projects with their takes as one zip',
  ],
]

const WORDS: readonly [string, string][] = [
  ['Trim', 'drag an end of a bar'],
  ['Slip', 'drag a bar with Alt: the picture moves under the span'],
  ['Stretch', 'drag the right end with Shift: the same part, slower or faster'],
  ['Fade', 'drag the dot in a bar’s upper corner; the lozenge below fades the sound'],
  ['Choose several', 'press with Ctrl or Shift, or draw a box over empty lanes'],
  ['Hold snapping off', 'keep Ctrl pressed while dragging'],
  ['Lanes closer', 'wheel over the ruler, or Ctrl with the wheel; Shift with the wheel scrolls'],
  [
    'Acts',
    'look at a take alone, mark in and out, keep the part; then place all acts at once. The lock-off report finds them, too',
  ],
]

const head = 'mb-3 text-xl'

/** How to film for these tricks, what the hand can do, every shortcut, formats. */
export function GuidePage() {
  const groups = [...new Set(COMMANDS.map(c => c.group))]
  return (
    <main className="h-full overflow-y-auto">
      <div className="mx-auto flex max-w-[1120px] flex-col gap-9 px-8 py-8">
        <header className="flex items-center gap-4">
          <Ghost size={40} className="text-ghost" />
          <h1 className="flex-1 text-3xl">Guide</h1>
          <Link to="/" className="rounded-full bg-card px-4 py-1.5 hover:bg-raised">
            Shots
          </Link>
        </header>
        <section aria-label="Filming">
          <h2 className={head}>Filming for it</h2>
          <ol className="grid list-decimal grid-cols-2 gap-x-10 gap-y-2 pl-5">
            {FILMING.map(line => (
              <li key={line} className="pl-1">
                {line}
              </li>
            ))}
          </ol>
        </section>
        <section aria-label="By hand">
          <h2 className={head}>By hand, in the lanes</h2>
          <dl className="grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1.5">
            {WORDS.map(([word, text]) => (
              <div key={word} className="contents">
                <dt className="font-bold">{word}</dt>
                <dd className="pr-6 text-quiet">{text}</dd>
              </div>
            ))}
          </dl>
        </section>
        <section aria-label="Shortcuts">
          <h2 className={head}>Every command</h2>
          <div className="columns-3 gap-8">
            {groups.map(group => (
              <div key={group} className="mb-4 break-inside-avoid">
                <h3 className="mb-1 text-quiet">{group}</h3>
                <dl>
                  {COMMANDS.filter(c => c.group === group).map(c => (
                    <div key={c.id} className="flex justify-between gap-3 border-b border-line py-0.5">
                      <dt>{c.name}</dt>
                      <dd className="text-quiet">{shownKeys(c.keys)}</dd>
                    </div>
                  ))}
                </dl>
              </div>
            ))}
          </div>
        </section>
        <section aria-label="Formats">
          <h2 className={head}>Formats</h2>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
            {READ.map(([word, text]) => (
              <div key={word} className="contents">
                <dt className="font-bold">{word}</dt>
                <dd className="text-quiet">{text}</dd>
              </div>
            ))}
          </dl>
        </section>
      </div>
    </main>
  )
}
