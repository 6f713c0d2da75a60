import * as markingEndpoints from '#shared/marking/endpoints'
import type { MarkView, RecordView } from '#shared/marking/desk'
import { ApiProblem, newKey, type useApi } from '../shell/useApi'
import { deskHistory, type Deed, type MarkAct } from './deskHistory'
import type { MarkChange, markSaving } from './markSaving'

const ENDPOINTS = {
  hold: markingEndpoints.holdMark,
  reopen: markingEndpoints.reopenMark,
  return: markingEndpoints.returnMark,
  'take-back': markingEndpoints.takeMarkBack,
} as const
const OPPOSITE = { hold: 'reopen', reopen: 'hold', return: 'take-back' } as const

interface Desk {
  readonly activityId: () => string
  readonly records: Map<string, RecordView>
  readonly saving: ReturnType<typeof markSaving>
  readonly fetchRecord: (id: string) => Promise<void>
  readonly reloadStrip: () => Promise<void>
  /** Told why an act on a mark was refused; null when there is nothing to tell any more. */
  readonly onRefused: (sentence: string | null) => void
}
/** What taking back, or doing again, has come to. */
export interface Undone {
  readonly deed: Deed
  readonly record: RecordView | null // whose it was, where it was one student's
  readonly isDone: boolean // false: the server refused it, and has said why
}

/** What a marker does on a desk, each deed taken down so that it can be taken back and done again. */
export function deskDeeds(api: ReturnType<typeof useApi>, desk: Desk) {
  const { records, saving, fetchRecord } = desk
  const history = deskHistory()
  const paramsOf = (id: string) => ({ activityId: desk.activityId(), enrolmentId: id })

  function put(id: string, part: MarkChange) {
    const r = records.get(id)!
    records.set(id, { ...r, mark: { ...r.mark, ...part } })
    saving.write(id)
  }
  /** Changes a mark; it is saved at the next pause. */
  function change(id: string, part: MarkChange) {
    const { mark } = records.get(id)!
    const before = Object.fromEntries(
      Object.keys(part).map(key => [key, mark[key as keyof MarkChange]]), // keys of a change
    )
    history.changed(id, before, part, Date.now())
    put(id, part)
  }

  /** Acts on a mark after saving it. @returns the mark as stored, or null when that was refused */
  async function send(what: MarkAct, id: string): Promise<MarkView | null> {
    await saving.save()
    if (saving.isUnsaved(id)) return null
    desk.onRefused(null)
    try {
      const mark = await api.call(ENDPOINTS[what], {
        params: paramsOf(id),
        body: { key: newKey(), baseVersion: records.get(id)!.mark.version },
      })
      const now = records.get(id)!
      records.set(id, { ...now, mark: { ...now.mark, ...figuresOf(mark) } })
      await desk.reloadStrip()
      return mark
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (error.code === 'changedMeanwhile')
        saving.meet(id, error.details.theirs as MarkView) // what that code comes with
      else desk.onRefused(error.message)
      return null
    }
  }
  /** The same, taken down to be taken back. What takes a deed back explicitly takes it off the list. */
  async function act(what: MarkAct, id: string): Promise<MarkView | null> {
    const from = records.get(id)!.mark.state
    const mark = await send(what, id)
    if (!mark) return null
    const last = history.last()
    const isOpposite = last?.kind === 'act' && last.id === id && OPPOSITE[last.act] === what
    if (isOpposite) history.wasTakenBack(last)
    else if (what !== 'take-back') history.record({ kind: 'act', id, act: what, from })
    return mark
  }

  /** Returns held marks now, or at a time. @returns how many */
  async function returnHeld(ids: readonly string[], at: string | null): Promise<number> {
    await saving.save()
    const returned = await sendReturn(ids, at)
    history.record({ kind: 'returnMany', ids: [...ids], at })
    return returned
  }
  async function sendReturn(ids: readonly string[], at: string | null): Promise<number> {
    const params = { activityId: desk.activityId() }
    const body = { key: newKey(), enrolmentIds: ids }
    const answer = at
      ? await api.call(markingEndpoints.scheduleReturn, { params, body: { ...body, at } })
      : await api.call(markingEndpoints.returnMarks, { params, body })
    await refetch(ids)
    return answer.returned
  }
  async function refetch(ids: readonly string[]) {
    for (const id of ids) if (!saving.isUnsaved(id)) records.delete(id)
    await desk.reloadStrip()
  }

  async function reverse(deed: Deed): Promise<boolean> {
    if (deed.kind === 'change') {
      if (!records.has(deed.id)) await fetchRecord(deed.id)
      put(deed.id, deed.before)
      return true
    }
    if (deed.kind === 'act') {
      if (!records.has(deed.id)) await fetchRecord(deed.id)
      if (!(await send(OPPOSITE[deed.act], deed.id))) return false
      // what was returned from the desk at once was not held before
      return deed.act !== 'return' || deed.from === 'held' || (await send('reopen', deed.id)) !== null
    }
    if (deed.at !== null) {
      await api.call(markingEndpoints.scheduleReturn, {
        params: { activityId: desk.activityId() },
        body: { key: newKey(), enrolmentIds: deed.ids, at: null },
      })
      await refetch(deed.ids)
      return true
    }
    for (const id of deed.ids) {
      if (!records.has(id)) await fetchRecord(id)
      if (!(await send('take-back', id))) return false
    }
    return true
  }
  async function repeat(deed: Deed): Promise<boolean> {
    if (deed.kind === 'returnMany') {
      await sendReturn(deed.ids, deed.at)
      return true
    }
    if (!records.has(deed.id)) await fetchRecord(deed.id)
    if (deed.kind === 'act') return (await send(deed.act, deed.id)) !== null
    put(deed.id, deed.after)
    return true
  }
  const outcome = (deed: Deed, isDone: boolean): Undone => ({
    deed,
    record: deed.kind === 'returnMany' ? null : (records.get(deed.id) ?? null),
    isDone,
  })
  let going: Promise<unknown> = Promise.resolve()
  /** One after the other: two quick presses take back two deeds. */
  function inTurn<T>(run: () => Promise<T>): Promise<T> {
    const mine = going.then(run, run)
    going = mine.catch(() => {})
    return mine
  }
  /** Takes the last deed back. @returns null when there is none */
  const undo = () =>
    inTurn(async (): Promise<Undone | null> => {
      const deed = history.last()
      if (!deed) return null
      const isDone = await reverse(deed)
      if (isDone) history.wasTakenBack(deed)
      else history.drop(deed)
      return outcome(deed, isDone)
    })
  /** Does again what was taken back last. @returns null when there is nothing */
  const redo = () =>
    inTurn(async (): Promise<Undone | null> => {
      const deed = history.next()
      if (!deed) return null
      const isDone = await repeat(deed)
      if (isDone) history.wasDoneAgain(deed)
      else history.drop(deed)
      return outcome(deed, isDone)
    })
  return { change, act, returnHeld, undo, redo, clear: history.clear }
}

/** What the server makes of a mark, whatever is written in it meanwhile. */
export const figuresOf = (mark: MarkView) => ({
  version: mark.version,
  state: mark.state,
  points: mark.points,
  before: mark.before,
  criteriaLeft: mark.criteriaLeft,
  returnedAt: mark.returnedAt,
  returnAt: mark.returnAt,
  takeBackUntil: mark.takeBackUntil,
  savedAt: mark.savedAt,
  savedBy: mark.savedBy,
})
