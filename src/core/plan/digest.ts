const digests = new WeakMap<object, string>()

/** What a part of a plan says, as text: parts that say the same are the same picture, and need to be made only once. */
export function digestOf(part: object): string {
  const known = digests.get(part)
  if (known !== undefined) return known
  const digest = JSON.stringify(part)
  digests.set(part, digest)
  return digest
}
