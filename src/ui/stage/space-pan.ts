/** Space alone plays, space with a drag pans: whether the space bar now held has panned. */
export const spacePan = { used: false }
