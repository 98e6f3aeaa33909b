declare module 'wawoff2/decompress.js' {
  /** WOFF2 -> the tables of the font that it packs. Throws what no font is. */
  export default function decompress(bytes: Uint8Array): Promise<Uint8Array>
}
