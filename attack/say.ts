/** Says a line to whoever runs the attack. */
export const say = (line: string): void => void process.stdout.write(`${line}\n`)
