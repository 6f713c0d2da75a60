import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useApi } from '../shell/useApi'
import * as peopleEndpoints from '#shared/people/endpoints'

/** Looks at the seminar through a practice student's eyes, or with one's own again. */
export function useStudentsEye() {
  const api = useApi()
  const seminar = useSeminarStore()
  const notices = useNotices()
  return async (on: boolean) => {
    const id = seminar.shell!.id
    try {
      await api.call(peopleEndpoints.lookAsStudent, { params: { seminarId: id }, body: { on } })
      // everything shown belongs to other eyes: pages are asked for anew
      clearNuxtData()
      await seminar.load(id)
      await navigateTo(`/seminars/${id}/${on ? 'week' : 'plan'}`)
    } catch (error) {
      notices.warn(error)
    }
  }
}
