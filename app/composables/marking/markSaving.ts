import * as markingEndpoints from '#shared/marking/endpoints'
import type { MarkView, RecordView } from '#shared/marking/desk'
import type { RichNode } from '#core/contributing/richText'
import { failureOf } from '~/autosave/failureOf'
import { reactiveAutosave } from '../shell/useAutosave'
import { newKey, type useApi } from '../shell/useApi'

const PAUSE = 600 // milliseconds without a change before a mark is saved

/** What a marker writes of a mark; the rest is calculated. */
export type MarkText = Pick<
  MarkView,
  'steps' | 'citations' | 'letter' | 'markerNote' | 'lateWaived' | 'excusedFrom' | 'override' | 'files'
>
/** What a marker changes on the desk. */
export type MarkChange = Partial<Omit<MarkText, 'letter'>> & { letter?: RichNode }
export type SaveState = 'saved' | 'saving' | 'not saved' | 'two texts'

export const markTextOf = (mark: MarkView): MarkText => ({
  steps: mark.steps,
  citations: mark.citations,
  letter: mark.letter,
  markerNote: mark.markerNote,
  lateWaived: mark.lateWaived,
  excusedFrom: mark.excusedFrom,
  override: mark.override,
  files: mark.files,
})

interface Desk {
  readonly activityId: () => string
  readonly records: Map<string, RecordView>
  readonly currentId: () => string | null
  /** Told what the server has made of a mark that was saved. */
  readonly onStored: (id: string, sent: RecordView, stored: MarkView) => void
}

/** Saves the marks of a desk, each by an autosave of its own for as long as something of it is not saved. */
export function markSaving(
  api: ReturnType<typeof useApi>,
  { activityId, records, currentId, onStored }: Desk,
) {
  const autosaves = shallowReactive(new Map<string, ReturnType<typeof autosaveOf>>())

  function autosaveOf(id: string) {
    const { mark } = records.get(id)!
    return reactiveAutosave<MarkText>({
      value: markTextOf(mark),
      version: mark.version,
      pause: PAUSE,
      send: async text => {
        const sent = records.get(id)!
        const stored = await api.call(markingEndpoints.saveMark, {
          params: { activityId: activityId(), enrolmentId: id },
          body: {
            ...text,
            key: newKey(),
            baseVersion: sent.mark.version, // acts on the mark raise it, too
            files: text.files.map(f => ({ id: f.id, spoken: f.spoken })),
          },
        })
        onStored(id, sent, stored)
        return stored
      },
      failureOf: error => failureOf(error, theirs => theirsOf(id, theirs as MarkView)), // what a conflict about a mark answers
    })
  }
  const theirMarks = new Map<string, MarkView>()
  function theirsOf(id: string, other: MarkView) {
    theirMarks.set(id, other)
    return { value: markTextOf(other), version: other.version, savedBy: other.savedBy }
  }
  /** An act on a mark was refused because somebody has saved it meanwhile. */
  function meet(id: string, other: MarkView) {
    const autosave = autosaves.get(id) ?? autosaveOf(id)
    autosaves.set(id, autosave)
    autosave.meet(theirsOf(id, other))
  }

  /** Puts what stands in the record on its way. */
  function write(id: string) {
    const autosave = autosaves.get(id) ?? autosaveOf(id)
    autosaves.set(id, autosave)
    autosave.change(markTextOf(records.get(id)!.mark))
  }
  /** Saves everything that is not saved. */
  async function save(): Promise<void> {
    for (const [id, autosave] of [...autosaves]) {
      await autosave.flush()
      letGo(id)
    }
  }
  /** A mark that is saved needs no autosave any more: the next change begins from the record as it is then. */
  function letGo(id: string) {
    const autosave = autosaves.get(id)
    if (autosave && !autosave.isUnstored.value && autosave.status.value.kind === 'stored')
      autosaves.delete(id)
  }
  const isUnsaved = (id: string) => autosaves.get(id)?.isUnstored.value ?? false

  const statuses = computed(() => [...autosaves.values()].map(a => a.status.value))
  const current = computed(() => {
    const id = currentId()
    return (id && autosaves.get(id)?.status.value) || null
  })
  const theirs = computed(() => {
    const id = currentId()
    return id !== null && current.value?.kind === 'conflict' ? (theirMarks.get(id) ?? null) : null
  })
  const state = computed<SaveState>(() => {
    if (theirs.value) return 'two texts'
    const kinds = statuses.value.map(s => s.kind)
    if (kinds.some(k => k === 'kept' || k === 'refused' || k === 'conflict')) return 'not saved'
    return kinds.some(k => k === 'changed' || k === 'sending') ? 'saving' : 'saved'
  })
  const problem = computed(() => {
    const id = currentId()
    const first = id === null ? undefined : autosaves.get(id)
    const failed = [first, ...autosaves.values()].find(a => a?.problem.value)
    return failed?.problem.value?.detail ?? null
  })
  /** Ends a conflict about the mark at hand. @returns the other mark, or null where there was none */
  function settle(mine: boolean): MarkView | null {
    const id = currentId()
    const other = theirs.value
    if (!id || !other) return null
    autosaves.get(id)!.settle(mine ? 'mine' : 'theirs')
    theirMarks.delete(id)
    letGo(id)
    return other
  }
  /** Nothing of another activity's marks is waited for. */
  function clear() {
    for (const autosave of autosaves.values()) autosave.close()
    autosaves.clear()
    theirMarks.clear()
  }
  return { write, save, meet, letGo, isUnsaved, state, problem, theirs, settle, clear }
}
