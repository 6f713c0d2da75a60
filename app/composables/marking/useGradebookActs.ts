import type { Ref } from 'vue'
import { inWords, plural } from '#core/language'
import * as markingEndpoints from '#shared/marking/endpoints'
import type { Gradebook, GradeRow } from '#shared/marking/gradebook'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { changeOf, isHeld } from './gradeWords'
import { points } from './points'

/** The points that a change starts from: those on the desk, where a returned mark is being changed. */
const standsAt = (row: GradeRow, column: number): number | null =>
  (changeOf(row, column) ?? { points: row.points[column] ?? null }).points

/** What can be done in a gradebook, each said with its way back. What the server refuses stands in `problem`. */
export function useGradebookActs(book: Ref<Gradebook | undefined>, refresh: () => Promise<unknown>) {
  const api = useApi()
  const notices = useNotices()
  const { busy, problem, send } = useSending()

  function take(next: GradeRow) {
    const rows = book.value!.rows.map(r => (r.enrolmentId === next.enrolmentId ? next : r))
    book.value = { ...book.value!, rows }
  }
  const sendPoints = (
    activityId: string,
    enrolmentId: string,
    write: { readonly was: number | null; readonly points: number | null; readonly reason: string },
  ) =>
    api.call(gradebookEndpoints.setPoints, {
      params: { activityId, enrolmentId },
      body: { key: newKey(), ...write },
    })
  /** Sets points, hundredths; null: what was calculated counts again. */
  async function setPoints(row: GradeRow, column: number, hundredths: number | null, reason: string) {
    const { id, title } = book.value!.columns[column]!
    const was = standsAt(row, column)
    const wasSet = row.set[column] === '1'
    const next = await send(() => sendPoints(id, row.enrolmentId, { was, points: hundredths, reason }))
    if (!next) return false
    take(next)
    const what = hundredths === null ? 'back to what was calculated' : points(hundredths)
    const held = isHeld(next, column) ? ' Held until you return it.' : ''
    notices.say(`${row.givenName}: ${what} for ${title}.${held}`, {
      label: 'Undo',
      run: async () => {
        const now = book.value!.rows.find(r => r.enrolmentId === row.enrolmentId)!
        const before = wasSet ? { points: was, reason: 'Undone.' } : { points: null, reason: '' }
        take(await sendPoints(id, row.enrolmentId, { was: standsAt(now, column), ...before }))
      },
    })
    return true
  }
  async function excuse(row: GradeRow, column: number, excused: boolean, reason: string) {
    const { id, title } = book.value!.columns[column]!
    const sendExcuse = (isExcused: boolean, why: string) =>
      api.call(gradebookEndpoints.excuseStudent, {
        params: { activityId: id, enrolmentId: row.enrolmentId },
        body: { key: newKey(), excused: isExcused, reason: why },
      })
    const next = await send(() => sendExcuse(excused, reason))
    if (!next) return
    take(next)
    if (!excused) {
      notices.say(`${title} counts for ${row.givenName} again.`)
      return
    }
    notices.say(`${row.givenName} is excused from ${title}.`, {
      label: 'Undo',
      run: async () => take(await sendExcuse(false, '')),
    })
  }
  async function returnHeld(activityId: string, enrolmentIds: string[]) {
    const answer = await send(() =>
      api.call(markingEndpoints.returnMarks, {
        params: { activityId },
        body: { key: newKey(), enrolmentIds },
      }),
    )
    if (!answer) {
      if (problem.value) notices.warn(new Error(problem.value))
      return
    }
    notices.say(`Returned to ${inWords(answer.returned)} ${plural(answer.returned, 'student')}.`)
    await refresh()
  }
  return { busy, problem, setPoints, excuse, returnHeld }
}
