import { ApiProblem } from './useApi'
import { useNotices } from '~/stores/notices'

/** One form being sent: busy while it is, with what was wrong at each field, and the rest said below. */
export function useSending() {
  const notices = useNotices()
  const busy = ref(false)
  const problems = ref<Record<string, string>>({})
  const problem = ref<string | null>(null)

  /** @returns what was answered, or null when it was refused; nothing typed is lost either way */
  async function send<T>(act: () => Promise<T>): Promise<T | null> {
    if (busy.value) return null
    busy.value = true
    problems.value = {}
    problem.value = null
    try {
      return await act()
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      problems.value = Object.fromEntries(
        Object.entries(error.details.fields ?? {}).map(([field, text]) => [field.split('.').at(-1)!, text]),
      )
      problem.value = error.message
      return null
    } finally {
      busy.value = false
    }
  }
  /** The same for acts without a form: what is wrong is said in the notice bar. */
  async function attempt<T>(act: () => Promise<T>): Promise<T | null> {
    try {
      return await act()
    } catch (error) {
      notices.warn(error)
      return null
    }
  }
  return { busy, problems, problem, send, attempt }
}
