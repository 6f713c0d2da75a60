export type Appearance = 'system' | 'paper' | 'night'

/** Light or dark: the system's wish unless the reader chose. Kept in a cookie, so that the server paints it right. */
export function useAppearance() {
  const chosen = useCookie<Appearance>('jovrel_appearance', {
    default: () => 'system',
    maxAge: 31_536_000,
    sameSite: 'lax',
  })
  useHead({ htmlAttrs: { 'data-theme': () => (chosen.value === 'system' ? undefined : chosen.value) } })
  return {
    chosen,
    choose: (appearance: Appearance) => {
      chosen.value = appearance
    },
  }
}
