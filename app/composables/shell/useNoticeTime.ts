import { useKeptChoice } from './useKeptChoice'

/** How long a notice that offers an undo stays, in milliseconds; -1: until it is closed. */
export const NOTICE_TIMES = [
  { value: 8000, label: 'for 8 seconds' },
  { value: 30_000, label: 'for half a minute' },
  { value: -1, label: 'until I close them' },
] as const

type NoticeTime = (typeof NOTICE_TIMES)[number]['value']
const isNoticeTime = (kept: unknown): kept is NoticeTime => NOTICE_TIMES.some(t => t.value === kept)

/** How long notices stay. */
export const useNoticeTime = () =>
  useKeptChoice<NoticeTime>('notice_time', NOTICE_TIMES[0].value, isNoticeTime)
