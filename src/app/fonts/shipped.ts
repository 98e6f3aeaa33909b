// The fonts that come with the program. All are free to use and to pass on (SIL Open Font License, or Apache License).
import slabUrl from '@fontsource/alfa-slab-one/files/alfa-slab-one-latin-400-normal.woff2?url'
import slabMoreUrl from '@fontsource/alfa-slab-one/files/alfa-slab-one-latin-ext-400-normal.woff2?url'
import narrowUrl from '@fontsource/bebas-neue/files/bebas-neue-latin-400-normal.woff2?url'
import narrowMoreUrl from '@fontsource/bebas-neue/files/bebas-neue-latin-ext-400-normal.woff2?url'
import limelightUrl from '@fontsource/limelight/files/limelight-latin-400-normal.woff2?url'
import limelightMoreUrl from '@fontsource/limelight/files/limelight-latin-ext-400-normal.woff2?url'
import tubesUrl from '@fontsource/monoton/files/monoton-latin-400-normal.woff2?url'
import brushUrl from '@fontsource/pacifico/files/pacifico-latin-400-normal.woff2?url'
import brushMoreUrl from '@fontsource/pacifico/files/pacifico-latin-ext-400-normal.woff2?url'
import ryeUrl from '@fontsource/rye/files/rye-latin-400-normal.woff2?url'
import typedUrl from '@fontsource/special-elite/files/special-elite-latin-400-normal.woff2?url'
import brokenUrl from '@fontsource/unifrakturcook/files/unifrakturcook-latin-700-normal.woff2?url'
import plainMoreUrl from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2?url'
import plainUrl from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url'
import handCyrillicUrl from '@fontsource-variable/caveat/files/caveat-cyrillic-wght-normal.woff2?url'
import handUrl from '@fontsource-variable/caveat/files/caveat-latin-wght-normal.woff2?url'
import frauncesMoreUrl from '@fontsource-variable/fraunces/files/fraunces-latin-ext-full-normal.woff2?url'
import frauncesUrl from '@fontsource-variable/fraunces/files/fraunces-latin-full-normal.woff2?url'
import arabicUrl from '@fontsource-variable/noto-naskh-arabic/files/noto-naskh-arabic-arabic-wght-normal.woff2?url'
import cyrillicUrl from '@fontsource-variable/noto-sans/files/noto-sans-cyrillic-wght-normal.woff2?url'
import devanagariUrl from '@fontsource-variable/noto-sans/files/noto-sans-devanagari-wght-normal.woff2?url'
import greekUrl from '@fontsource-variable/noto-sans/files/noto-sans-greek-wght-normal.woff2?url'
import latinMoreUrl from '@fontsource-variable/noto-sans/files/noto-sans-latin-ext-wght-normal.woff2?url'
import latinUrl from '@fontsource-variable/noto-sans/files/noto-sans-latin-wght-normal.woff2?url'
import vietnameseUrl from '@fontsource-variable/noto-sans/files/noto-sans-vietnamese-wght-normal.woff2?url'
import hebrewUrl from '@fontsource-variable/noto-serif-hebrew/files/noto-serif-hebrew-hebrew-wght-normal.woff2?url'
import linearUrl from '@fontsource-variable/recursive/files/recursive-latin-full-normal.woff2?url'

/** A font of the program, in as many files as it comes in; the first has what most need. */
export interface ShippedFont {
  name: string
  /** What it is like, in a few words. */
  like: string
  urls: readonly string[]
}

export const SHIPPED: readonly ShippedFont[] = [
  { name: 'Fraunces', like: 'old and soft, from thin to black', urls: [frauncesUrl, frauncesMoreUrl] },
  { name: 'Limelight', like: 'a playhouse front', urls: [limelightUrl, limelightMoreUrl] },
  { name: 'Bebas Neue', like: 'tall capitals', urls: [narrowUrl, narrowMoreUrl] },
  { name: 'Alfa Slab One', like: 'heavy feet', urls: [slabUrl, slabMoreUrl] },
  { name: 'Atkinson Hyperlegible Next', like: 'plain, in every weight', urls: [plainUrl, plainMoreUrl] },
  { name: 'Recursive', like: 'from set to casual, in every weight', urls: [linearUrl] },
  { name: 'Noto Sans', like: 'plain, for many scripts', urls: [latinUrl, latinMoreUrl, greekUrl, cyrillicUrl] },
  { name: 'Caveat', like: 'written by hand', urls: [handUrl, handCyrillicUrl] },
  { name: 'Pacifico', like: 'a round brush', urls: [brushUrl, brushMoreUrl] },
  { name: 'Special Elite', like: 'a worn typewriter', urls: [typedUrl] },
  { name: 'Rye', like: 'a fairground board', urls: [ryeUrl] },
  { name: 'UnifrakturCook', like: 'a broken pen', urls: [brokenUrl] },
  { name: 'Monoton', like: 'bent tubes', urls: [tubesUrl] },
]

/** What stands in for letters that a chosen font lacks, by the scripts it is for. */
export const STAND_INS: readonly { scripts: RegExp; url: string }[] = [
  { scripts: /\p{Script=Latin}|\p{Script=Common}/u, url: latinUrl },
  { scripts: /\p{Script=Latin}/u, url: latinMoreUrl },
  { scripts: /[\u0102\u0103\u0110\u0111\u01a0\u01a1\u01af\u01b0\u1ea0-\u1ef9]/u, url: vietnameseUrl },
  { scripts: /\p{Script=Greek}/u, url: greekUrl },
  { scripts: /\p{Script=Cyrillic}/u, url: cyrillicUrl },
  { scripts: /\p{Script=Devanagari}/u, url: devanagariUrl },
  { scripts: /\p{Script=Arabic}/u, url: arabicUrl },
  { scripts: /\p{Script=Hebrew}/u, url: hebrewUrl },
]
