/** How long a notice that offers an undo stays, in milliseconds; -1: until it is closed. */
export const NOTICE_TIMES = [
  { value: 8000, label: 'for 8 seconds' },
  { value: 30_000, label: 'for half a minute' },
  { value: -1, label: 'until I close them' },
] as const

/** How long notices stay for whoever uses this browser: one value for all that ask. */
export function useNoticeTime() {
  const kept = useCookie<number>('jovrel_notice_time', {
    default: () => NOTICE_TIMES[0].value,
    maxAge: 31_536_000,
    sameSite: 'lax',
  })
  const time = useState('noticeTime', () => kept.value)
  return computed({
    get: () => (NOTICE_TIMES.some(t => t.value === time.value) ? time.value : NOTICE_TIMES[0].value),
    set: chosen => {
      time.value = chosen
      kept.value = chosen
    },
  })
}
