/** What came of looking at something foreign: the thing itself, or a sentence that says what is wrong with it. */
export type Checked<T> = { ok: true; value: T } | { ok: false; problem: string }
