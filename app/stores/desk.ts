import { defineStore } from 'pinia'
import { KINDS } from '#core/kinds'
import { ownAfter } from '#core/marking/peers/ownSteps'
import { readOnlyState } from './readOnlyState'
import type { ActivityView } from '#shared/contributing/activity'
import type { CitationView, DeskView, MarkView, RecordView } from '#shared/marking/desk'
import { deskDeeds, figuresOf } from '../composables/marking/deskDeeds'
import { markSaving, type MarkChange, type MarkText, type SaveState } from '../composables/marking/markSaving'
import { newKey, useApi } from '../composables/shell/useApi'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'

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
    const coming = new Map<string, Promise<void>>()
    const saving = markSaving(api, {
      activityId: () => activity.value!.id,
      records,
      currentId: () => currentId.value,
      onStored: takeStored,
    })
    const theirs = saving.theirs
    const problem = computed(() => refused.value ?? saving.problem.value)
    const state = computed<SaveState>(() => saving.state.value)
    const deeds = deskDeeds(api, {
      activityId: () => activity.value!.id,
      records,
      saving,
      fetchRecord,
      reloadStrip,
      onRefused: sentence => {
        refused.value = sentence
      },
    })
    const changedAfterReturn = ref<string | null>(null) // whose returned mark was just begun to be changed
    const reopened = ref<string | null>(null) // whose held mark is held no longer, because a step is missing

    /** What was told of a change has been said. */
    function heardOfChange() {
      changedAfterReturn.value = null
      reopened.value = null
    }
    /** Fetches the marks that an earlier tab of this browser could not save; they are sent, or shown beside what is there now. */
    async function restoreKept() {
      const known = new Set(desk.value?.students.map(s => s.id))
      for (const id of saving.keptIds()) {
        if (!known.has(id)) continue
        if (records.has(id)) await saving.restore(id)
        else await fetchRecord(id)
      }
    }

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
      deeds.clear()
      heardOfChange()
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
            return saving.restore(id)
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

    const isOfPeers = () => KINDS[activity.value!.kind].markedBy === 'peers'
    /** Changes the mark at hand; steps changed beside readers' are the marker's own. Saved at the next pause. */
    function change(part: MarkChange, id = currentId.value) {
      const r = id ? records.get(id) : undefined
      if (!r) return
      refused.value = null
      if (r.mark.state === 'returned' && r.mark.version > 0 && !saving.isUnsaved(r.student.id))
        changedAfterReturn.value = r.student.id
      const own =
        part.steps && isOfPeers() ? { ownSteps: ownAfter(r.mark.ownSteps, r.mark.steps, part.steps) } : {}
      deeds.change(r.student.id, { ...part, ...own })
    }
    const save = saving.save

    /** What was changed while the answer was on its way stays; only version and figures are taken over. */
    function takeStored(id: string, sent: RecordView, stored: MarkView) {
      const now = records.get(id)
      if (!now) return
      records.set(id, {
        ...now,
        mark: { ...now.mark, ...figuresOf(stored) },
      })
      if (sent.mark.state === 'held' && stored.state === 'open') reopened.value = id
      // steps of the group's criteria have reached the others of the group
      for (const other of sent.group?.members ?? []) {
        if (other.id === id || saving.isUnsaved(other.id)) continue
        records.delete(other.id)
        coming.delete(other.id)
        if (other.id === currentId.value) void fetchRecord(other.id).catch(() => {})
      }
      if (sent.mark.state !== stored.state) void reloadStrip().catch(() => {})
    }

    /** Settles two versions of a mark: what was made of both goes on top of theirs, or theirs takes its place. */
    async function settle(joined: MarkText | null) {
      const r = record.value
      const other = saving.settle(joined !== null)
      if (!r || !other) return
      const { id } = r.student
      records.set(id, {
        ...r,
        mark: joined ? { ...r.mark, ...joined, version: other.version, state: other.state } : other,
      })
      if (joined) {
        saving.write(id)
        await saving.save()
      } else await fetchRecord(id)
    }

    /** Holds, reopens, returns or takes back a mark, after saving it. @returns the mark as stored, or null when refused */
    async function act(
      what: 'hold' | 'reopen' | 'return' | 'take-back',
      id = currentId.value,
    ): Promise<MarkView | null> {
      return id && records.has(id) ? deeds.act(what, id) : null
    }
    /** Returns held marks now, or at a time. @returns how many */
    async function returnHeld(ids: readonly string[], at: string | null = null): Promise<number> {
      const returned = await deeds.returnHeld(ids, at)
      if (currentId.value && !records.has(currentId.value)) await fetchRecord(currentId.value)
      return returned
    }
    /** Takes the last deed back, or does again what was taken back, and shows the record it was about. */
    async function takeBack(which: 'undo' | 'redo') {
      const undone = await deeds[which]()
      const id = undone?.record?.student.id
      if (id && currentId.value !== id) await show(id)
      else if (currentId.value && !records.has(currentId.value)) await fetchRecord(currentId.value)
      return undone
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
      unsaved: saving.unsaved,
      isSaving: saving.isSaving,
      retry: saving.retry,
      restoreKept,
      heardOfChange,
      changedAfterReturn,
      reopened,
      load,
      reload: reloadStrip,
      fetchRecord,
      show,
      prefetch,
      change,
      save,
      settle,
      act,
      takeBack,
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
