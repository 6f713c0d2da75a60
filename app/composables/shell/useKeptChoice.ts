const YEAR = 31_536_000 // seconds

/**
 * Something that whoever uses this browser has chosen: one value for all that ask, kept in a cookie, so that the server
 * draws by it. The cookie is opened when it is first read and when it is changed, not by each that asks: each opening listens
 * to other tabs.
 *
 * @param isOne whether what a cookie holds is such a value, and not something older or broken
 */
export function useKeptChoice<T>(name: string, usual: T, isOne: (kept: unknown) => kept is T) {
  const app = useNuxtApp()
  const cookie = () =>
    useCookie<unknown>(`jovrel_${name}`, { default: () => usual, maxAge: YEAR, sameSite: 'lax' })
  const choice = useState<T>(`kept:${name}`, () => {
    const kept = cookie().value
    return isOne(kept) ? kept : usual
  })
  return computed<T>({
    get: () => choice.value,
    set: chosen => {
      choice.value = chosen
      app.runWithContext(() => {
        cookie().value = chosen
      })
    },
  })
}
