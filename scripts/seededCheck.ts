import fc from 'fast-check'

/** The values properties are tried with: the same in every run, so that a run is free of chance. */
const USUAL_SEED = 20261014

fc.configureGlobal({ seed: Number(process.env.JOVREL_SEED ?? USUAL_SEED) })

export * from 'fast-check'
export { default } from 'fast-check'
