import { dateFormat } from '#core/language/dateFormat'
import { useSeminarStore } from '~/stores/seminar'

const TIMES = { hour: '2-digit', minute: '2-digit' } as const

/** Times as the seminar's clock shows them, in short words. */
export function useTimes() {
  const seminar = useSeminarStore()
  const format = (options: Intl.DateTimeFormatOptions) => {
    const formatter = () => dateFormat('en-GB', { timeZone: seminar.shell?.timeZone ?? 'UTC', ...options })
    // the same words from every ICU: no comma after the weekday, "Sep" rather than "Sept"
    return (at: string | Date) =>
      formatter()
        .format(new Date(at))
        .replaceAll(',', '')
        .replace(/Sept\b/, 'Sep')
  }
  const day = format({ weekday: 'short', day: 'numeric', month: 'short' })
  const time = format(TIMES)
  return {
    /** Wed 14 Oct */ day,
    /** 14 Oct */ date: format({ day: 'numeric', month: 'short' }),
    /** 23:59 */ time,
    /** Wednesday */ weekday: format({ weekday: 'long' }),
    /** Wednesday 14 October */ longDay: format({ weekday: 'long', day: 'numeric', month: 'long' }),
    /** Wed 14 Oct, 23:59 */ dayTime: (at: string | Date) => `${day(at)}, ${time(at)}`,
    /** Wed 23:59 */ shortDayTime: (at: string | Date) => `${format({ weekday: 'short' })(at)} ${time(at)}`,
    now: computed(() => new Date(seminar.shell?.now ?? 0)),
  }
}
