import { current, type Draft, isDraft } from 'immer'

/** A deep copy of a part of the document, which is plain data; also of a draft that is being changed, unlike `structuredClone`. */
export const clone = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** A part of a draft as it is now, to be read and not to be changed: much quicker than by way of the draft. */
export const asPlain = <T extends object>(value: T): T => (isDraft(value) ? (current(value as Draft<T>) as T) : value)
