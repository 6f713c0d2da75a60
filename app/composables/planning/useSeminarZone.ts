import { localDay, localInstant } from '#core/planning/week'
import { TZDate } from '@date-fns/tz'
import { useSeminarStore } from '~/stores/seminar'

/** "Lisbon" of Europe/Lisbon, "Buenos Aires" of America/Argentina/Buenos_Aires. */
export const placeOf = (zone: string): string => zone.split('/').at(-1)!.replaceAll('_', ' ')

/** Whether two zones show the same time, now and half a year from now. */
export function showSameTime(a: string, b: string, now: number): boolean {
  const HALF_YEAR = 182 * 86_400_000
  return [now, now + HALF_YEAR].every(
    at => new TZDate(at, a).getTimezoneOffset() === new TZDate(at, b).getTimezoneOffset(),
  )
}

/** The seminar's clock: times are typed and shown by it, and it is named to whoever's own shows another. */
export function useSeminarZone() {
  const seminar = useSeminarStore()
  const zone = computed(() => seminar.shell?.timeZone ?? 'UTC')
  const own = ref<string | null>(null) // the reader's; the server does not know it
  onMounted(() => {
    own.value = new Intl.DateTimeFormat().resolvedOptions().timeZone
  })
  /** "Lisbon time", where the reader's clock shows another; otherwise null. */
  const named = computed(() =>
    own.value === null || showSameTime(zone.value, own.value, Date.parse(seminar.shell?.now ?? '') || 0)
      ? null
      : `${placeOf(zone.value)} time`,
  )
  /** The instant of what a field for day and time holds, "2026-10-14T09:30"; ISO. */
  const instantOf = (local: string): string =>
    localInstant(local.slice(0, 10), local.slice(11, 16), zone.value).toISOString()
  /** What a field for day and time shows for an instant: the other way round. */
  const localOf = (iso: string): string => new TZDate(iso, zone.value).toISOString().slice(0, 16)
  /** The day it is there. */
  const today = computed(() => localDay(new Date(seminar.shell?.now ?? Date.now()), zone.value))
  const usualTime = computed(() => seminar.shell?.usualDueTime ?? '23:59')
  return { named, instantOf, localOf, today, usualTime }
}
