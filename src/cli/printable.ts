/** Text as it may be shown in a terminal: what would move the cursor, change colours or turn lines round is made visible. */
export const printable = (text: string): string =>
  // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is looked for
  text.replace(/[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u200e\u200f\u2028-\u202e\u2066-\u2069]/g, c => {
    return `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`
  })
