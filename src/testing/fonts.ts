// Fonts of the program, as files.
import { readFile } from 'node:fs/promises'

const FILES = {
  fraunces: '@fontsource-variable/fraunces/files/fraunces-latin-full-normal',
  arabic: '@fontsource-variable/noto-naskh-arabic/files/noto-naskh-arabic-arabic-wght-normal',
  limelight: '@fontsource/limelight/files/limelight-latin-400-normal',
  limelight1: '@fontsource/limelight/files/limelight-latin-400-normal',
} as const

/** A font's file, packed as WOFF2, or as WOFF where `limelight1` is asked for. */
export const fontFile = (name: keyof typeof FILES): Promise<Uint8Array<ArrayBuffer>> =>
  readFile(
    new URL(`../../node_modules/${FILES[name]}.${name === 'limelight1' ? 'woff' : 'woff2'}`, import.meta.url),
  ).then(b => new Uint8Array(b))
