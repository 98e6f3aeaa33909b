// Random cases are the same in every run, so that a test that passed passes again. `SEED=<any number> npm test` tries others, as everybody should now and then.
import fc from 'fast-check'

fc.configureGlobal({ seed: Number(process.env.SEED ?? 1) })
