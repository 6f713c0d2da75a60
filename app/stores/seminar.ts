import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import type { SeminarShell } from '#shared/people/seminar'
import { useApi } from '../composables/shell/useApi'
import * as peopleEndpoints from '#shared/people/endpoints'

/** The seminar one is in: its weeks, one's role, the figures beside the navigation, and the week the page is narrowed to. */
export const useSeminarStore = readOnlyState(
  defineStore('seminar', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const shell = ref<SeminarShell | null>(null)
    const chosenWeek = ref<number | null>(null)

    async function load(seminarId: string) {
      if (shell.value && shell.value.id !== seminarId) chosenWeek.value = null
      shell.value = await api.call(peopleEndpoints.readSeminar, { params: { seminarId } })
    }
    const isStaff = computed(() => shell.value?.role === 'instructor' || shell.value?.role === 'assistant')
    const isStudent = computed(() => shell.value?.role === 'student')
    const chooseWeek = (week: number) => {
      chosenWeek.value = chosenWeek.value === week ? null : week
    }
    /** Whether a span of time touches the chosen week; always when none is chosen. */
    const inChosenWeek = (from: string, to: string) => {
      const week = shell.value?.weeks.find(w => w.number === chosenWeek.value)
      return !week || (from < week.endsAt && to > week.startsAt)
    }
    return { shell, chosenWeek, load, isStaff, isStudent, chooseWeek, inChosenWeek }
  }),
)
