/** The word for one or for many, whichever `n` asks for. */
export const plural = (n: number, one: string, many = `${one}s`): string => (n === 1 ? one : many)
