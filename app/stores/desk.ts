import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import type { ActivityView } from '#shared/contributing/activity'
import type { CitationView, DeskView, MarkView, RecordView } from '#shared/marking/desk'
import { markSaving, markTextOf, type MarkChange, type SaveState } from '../composables/marking/markSaving'
import { ApiProblem, newKey, useApi } from '../composables/shell/useApi'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'

const UNDO_STEPS = 100
const MARK_ACTS = {
  hold: markingEndpoints.holdMark,
  reopen: markingEndpoints.reopenMark,
  return: markingEndpoints.returnMark,
  'take-back': markingEndpoints.takeMarkBack,
} as const

/** The marking desk of one activity: everyone's records as they come, the mark at hand saved at every pause. */
export const useDeskStore = readOnlyState(
  defineStore('desk', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const activity = ref<ActivityView | null>(null)
    const desk = ref<DeskView | null>(null)
    const records = shallowReactive(new Map<string, RecordView>())
    const currentId = ref<string | null>(null)
    const refused = ref<string | null>(null) // what an act on a mark was answered
    const record = computed(() => (currentId.value ? (records.get(currentId.value) ?? null) : null))
    const undo: Array<{ id: string; what: string; before: MarkView }> = []
    const coming = new Map<string, Promise<void>>()
    const saving = markSaving(api, {
      activityId: () => activity.value!.id,
      records,
      currentId: () => currentId.value,
      onStored: takeStored,
    })
    const theirs = saving.theirs
    const problem = computed(() => refused.value ?? saving.problem.value)
    const state = computed<SaveState>(() => (refused.value ? 'not saved' : saving.state.value))
    const at = (id: string) => ({ activityId: activity.value!.id, enrolmentId: id })

    async function load(activityId: string, studentId: string | null) {
      saving.clear()
      records.clear()
      const [a, d] = await Promise.all([
        api.call(contributingEndpoints.readActivity, { params: { activityId } }),
        api.call(markingEndpoints.readDesk, { params: { activityId } }),
      ])
      activity.value = a
      desk.value = d
      strip.value = null
      undo.length = 0
      const first =
        d.students.find(s => s.id === studentId) ??
        d.students.find(s => s.standing === 'ready') ??
        d.students[0]
      currentId.value = first?.id ?? null
      if (first) await fetchRecord(first.id)
    }

    async function reloadStrip() {
      desk.value = await api.call(markingEndpoints.readDesk, { params: { activityId: activity.value!.id } })
    }

    function fetchRecord(id: string): Promise<void> {
      const known = coming.get(id)
      if (known) return known
      // an answer asked for before the record was changed elsewhere is not taken
      const fetching: Promise<void> = api
        .call(markingEndpoints.readRecord, { params: { activityId: activity.value!.id, enrolmentId: id } })
        .then(r => {
          if (coming.get(id) === fetching && !saving.isUnsaved(id)) {
            saving.letGo(id)
            records.set(id, r)
          }
        })
        .finally(() => {
          if (coming.get(id) === fetching) coming.delete(id)
        })
      coming.set(id, fetching)
      return fetching
    }

    const strip = shallowRef<readonly string[] | null>(null) // ids in the order they are gone through, where it is not the desk's own
    function goThrough(ids: readonly string[]) {
      strip.value = ids
    }
    const inStrip = () => {
      const students = desk.value?.students ?? []
      if (!strip.value) return students
      const byId = new Map(students.map(s => [s.id, s]))
      return strip.value.flatMap(id => byId.get(id) ?? [])
    }
    const neighbour = (step: number): string | null => {
      const students = inStrip()
      const at = students.findIndex(s => s.id === currentId.value)
      return students[at + step]?.id ?? null
    }
    /** The next student who is ready, after the one at hand and then from the start. */
    const nextReady = (): string | null => {
      const students = inStrip()
      const at = students.findIndex(s => s.id === currentId.value)
      return (
        [...students.slice(at + 1), ...students.slice(0, at)].find(s => s.standing === 'ready')?.id ??
        neighbour(1)
      )
    }

    /** Shows a student's record, at once if it is here already; the ones beside it are fetched ahead. */
    async function show(id: string) {
      void save()
      currentId.value = id
      refused.value = null
      if (!records.has(id)) await fetchRecord(id)
      prefetch()
    }
    function prefetch() {
      for (const id of [neighbour(1), nextReady(), neighbour(-1)])
        if (id && !records.has(id)) void fetchRecord(id).catch(() => {})
    }

    /** Changes the mark at hand; saved at the next pause. */
    function change(part: MarkChange, id = currentId.value) {
      const r = id ? records.get(id) : undefined
      if (!r) return
      // writing at one text is one change
      const what = Object.keys(part).join()
      const last = undo.at(-1)
      if (!(last?.id === r.student.id && last.what === what && (what === 'letter' || what === 'markerNote')))
        undo.push({ id: r.student.id, what, before: r.mark })
      if (undo.length > UNDO_STEPS) undo.shift()
      records.set(r.student.id, { ...r, mark: { ...r.mark, ...part } })
      refused.value = null
      saving.write(r.student.id)
    }
    const save = saving.save

    /** What was changed while the answer was on its way stays; only version and figures are taken over. */
    function takeStored(id: string, sent: RecordView, stored: MarkView) {
      const now = records.get(id)
      if (!now) return
      records.set(id, {
        ...now,
        mark: {
          ...now.mark,
          version: stored.version,
          state: stored.state,
          points: stored.points,
          before: stored.before,
          criteriaLeft: stored.criteriaLeft,
          takeBackUntil: stored.takeBackUntil,
          returnAt: stored.returnAt,
          savedAt: stored.savedAt,
          savedBy: stored.savedBy,
        },
      })
      // steps of the group's criteria have reached the others of the group
      for (const other of sent.group?.members ?? []) {
        if (other.id === id || saving.isUnsaved(other.id)) continue
        records.delete(other.id)
        coming.delete(other.id)
        if (other.id === currentId.value) void fetchRecord(other.id).catch(() => {})
      }
      if (sent.mark.state !== stored.state) void reloadStrip().catch(() => {})
    }

    /** Settles two versions of a mark: mine goes on top of theirs, or theirs takes its place. */
    async function settle(mine: boolean) {
      const r = record.value
      const other = saving.settle(mine)
      if (!r || !other) return
      records.set(r.student.id, {
        ...r,
        mark: mine ? { ...r.mark, version: other.version, state: other.state } : other,
      })
      if (mine) await save()
      else await fetchRecord(r.student.id)
    }

    /** Holds, reopens, returns or takes back the mark at hand, after saving it. @returns the mark as stored, or null when refused */
    async function act(what: keyof typeof MARK_ACTS, id = currentId.value): Promise<MarkView | null> {
      if (!id) return null
      await save()
      if (theirs.value || saving.isUnsaved(id)) return null
      refused.value = null
      try {
        const mark = await api.call(MARK_ACTS[what], {
          params: at(id),
          body: { key: newKey(), baseVersion: records.get(id)!.mark.version },
        })
        const now = records.get(id)!
        records.set(id, {
          ...now,
          mark: {
            ...now.mark,
            version: mark.version,
            state: mark.state,
            points: mark.points,
            before: mark.before,
            criteriaLeft: mark.criteriaLeft,
            returnedAt: mark.returnedAt,
            returnAt: mark.returnAt,
            takeBackUntil: mark.takeBackUntil,
          },
        })
        await reloadStrip()
        return mark
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error
        if (error.code === 'changedMeanwhile')
          saving.meet(id, error.details.theirs as MarkView) // what that code comes with
        else refused.value = error.message
        return null
      }
    }

    /** Takes back the last change on any record, and shows the record it was made on. @returns whose it was */
    async function undoLast(): Promise<RecordView | null> {
      const last = undo.pop()
      const r = last && records.get(last.id)
      if (!last || !r) return null
      records.set(last.id, { ...r, mark: { ...r.mark, ...markTextOf(last.before) } })
      saving.write(last.id)
      if (currentId.value !== last.id) await show(last.id)
      return r
    }

    /** Returns held marks now, or at a time. @returns how many */
    async function returnHeld(ids: readonly string[], at: string | null = null): Promise<number> {
      await save()
      const answer = at
        ? await api.call(markingEndpoints.scheduleReturn, {
            params: { activityId: activity.value!.id },
            body: {
              key: newKey(),
              enrolmentIds: ids,
              at,
            },
          })
        : await api.call(markingEndpoints.returnMarks, {
            params: { activityId: activity.value!.id },
            body: {
              key: newKey(),
              enrolmentIds: ids,
            },
          })
      for (const id of ids) records.delete(id)
      await reloadStrip()
      if (currentId.value && !records.has(currentId.value)) await fetchRecord(currentId.value)
      return answer.returned
    }

    /** Marks one contribution of the record at hand; the mark made of these is calculated anew. */
    async function markContribution(
      contributionId: string,
      mark: { points: number | null; done: boolean | null },
    ) {
      const id = currentId.value
      if (!id) return
      await save()
      await api.call(contributingEndpoints.markContribution, { params: { contributionId }, body: mark })
      await fetchRecord(id)
    }
    async function saveSecond(steps: MarkView['steps'], remark: string, done: boolean) {
      const id = currentId.value!
      records.set(
        id,
        await api.call(markingEndpoints.saveSecondMark, {
          params: { activityId: activity.value!.id, enrolmentId: id },
          body: { key: newKey(), steps, remark, done },
        }),
      )
      if (done) await reloadStrip()
    }
    /** The markers agree: the steps are saved as the mark's, and the second marking is settled. */
    async function agree(steps: MarkView['steps']) {
      const id = currentId.value!
      change({ steps })
      await save()
      if (saving.isUnsaved(id)) return
      records.set(
        id,
        await api.call(markingEndpoints.agreeSecondMark, {
          params: { activityId: activity.value!.id, enrolmentId: id },
          body: {
            key: newKey(),
            baseVersion: records.get(id)!.mark.version,
          },
        }),
      )
      await reloadStrip()
    }

    const cite = (citation: CitationView) => {
      if (record.value) change({ citations: [...record.value.mark.citations, citation] })
    }
    const uncite = (index: number) => {
      if (record.value) change({ citations: record.value.mark.citations.filter((_, i) => i !== index) })
    }

    return {
      activity,
      desk,
      records,
      currentId,
      record,
      state,
      problem,
      theirs,
      load,
      reload: reloadStrip,
      fetchRecord,
      show,
      prefetch,
      change,
      save,
      settle,
      act,
      undoLast,
      returnHeld,
      markContribution,
      saveSecond,
      agree,
      strip,
      goThrough,
      neighbour,
      nextReady,
      cite,
      uncite,
    }
  }),
)
