/**
 * How many times slower than a quiet machine this one is, measured when `npm test` starts (`scripts/testPace.mjs`); at least 1.
 * Limits of time in tests are multiplied by it, so that nothing fails by slowness alone.
 */
export const pace = (): number => Math.max(1, Number(process.env.JOVREL_TEST_PACE) || 1)
