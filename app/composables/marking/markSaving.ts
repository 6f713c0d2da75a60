import * as markingEndpoints from '#shared/marking/endpoints'
import type { MarkView, RecordView } from '#shared/marking/desk'
import type { Kept } from '~/autosave/autosave'
import type { RichNode } from '#core/contributing/richText'
import isSame from 'fast-deep-equal'
import { failureOf } from '~/autosave/failureOf'
import { localDraft } from '~/autosave/localDraft'
import { ownedStorage } from '~/autosave/ownedStorage'
import { reactiveAutosave } from '../shell/useAutosave'
import { ApiProblem, newKey, type useApi } from '../shell/useApi'

const PAUSE = 600 // milliseconds without a change before a mark is saved

/** What a marker writes of a mark; the rest is calculated. */
export type MarkText = Pick<
  MarkView,
  | 'steps'
  | 'ownSteps'
  | 'citations'
  | 'letter'
  | 'markerNote'
  | 'lateWaived'
  | 'excusedFrom'
  | 'override'
  | 'files'
>
/** What a marker changes on the desk. */
export type MarkChange = Partial<Omit<MarkText, 'letter'>> & { letter?: RichNode }
export type SaveState = 'saved' | 'saving' | 'not saved' | 'two texts'

export const markTextOf = (mark: MarkView): MarkText => ({
  steps: mark.steps,
  ownSteps: mark.ownSteps,
  citations: mark.citations,
  letter: mark.letter,
  markerNote: mark.markerNote,
  lateWaived: mark.lateWaived,
  excusedFrom: mark.excusedFrom,
  override: mark.override,
  files: mark.files,
})

/** The mark of a conflict that says what was sent: it was stored by a request whose answer was lost. @throws otherwise */
function storedAlready(error: unknown, sent: MarkText): MarkView {
  const isConflict = error instanceof ApiProblem && error.code === 'changedMeanwhile'
  const theirs = isConflict ? (error.details.theirs as MarkView) : null // what that code comes with
  if (theirs && isSame(markTextOf(theirs), sent)) return theirs
  throw error
}

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
  const prefix = () => `mark:${activityId()}:`
  const autosaves = shallowReactive(new Map<string, ReturnType<typeof autosaveOf>>())

  function autosaveOf(id: string) {
    const { mark } = records.get(id)!
    return reactiveAutosave<MarkText>({
      value: markTextOf(mark),
      version: mark.version,
      pause: PAUSE,
      localDraft: localDraft<MarkText>(`${prefix()}${id}`, {
        write: kept => kept,
        read: written => written as Kept<MarkText>, // as it was written above
      }),
      send: async text => {
        const sent = records.get(id)!
        const stored = await api
          .call(markingEndpoints.saveMark, {
            params: { activityId: activityId(), enrolmentId: id },
            body: {
              ...text,
              key: newKey(),
              baseVersion: sent.mark.version, // acts on the mark raise it, too
              files: text.files.map(f => ({ id: f.id, spoken: f.spoken })),
            },
          })
          .catch((error: unknown) => storedAlready(error, text))
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

  /** Brings back what an earlier tab could not save of a mark. What was saved elsewhere since is never overwritten. */
  async function restore(id: string) {
    if (autosaves.has(id)) return
    const { mark } = records.get(id)!
    const autosave = autosaveOf(id)
    await autosave.restore()
    const kept = autosave.value.value
    const now = records.get(id)
    const isKnown = !autosave.isUnstored.value || isSame(kept, markTextOf(mark))
    if (isKnown || autosaves.has(id) || !now) {
      await autosave.hold()
      if (isKnown) autosave.forget()
      return autosave.close()
    }
    autosaves.set(id, autosave)
    records.set(id, { ...now, mark: { ...now.mark, ...kept } })
    const isTheirs = autosave.version.value !== mark.version && !autosave.wasSent(markTextOf(mark))
    if (isTheirs) autosave.meet(theirsOf(id, mark))
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
    if (autosave && !autosave.isUnstored.value && autosave.status.value.kind === 'stored') {
      autosave.close()
      autosaves.delete(id)
    }
  }
  const isUnsaved = (id: string) => autosaves.get(id)?.isUnstored.value ?? false

  /** Where one mark is. */
  function stateOf(id: string): SaveState {
    switch (autosaves.get(id)?.status.value.kind) {
      case 'conflict':
        return 'two texts'
      case 'kept':
      case 'refused':
        return 'not saved'
      case 'changed':
      case 'sending':
        return 'saving'
      default:
        return 'saved'
    }
  }
  const current = <T>(of: (id: string) => T, none: T): T => {
    const id = currentId()
    return id === null ? none : of(id)
  }
  const state = computed(() => current(stateOf, 'saved'))
  const theirs = computed(() =>
    current(id => (stateOf(id) === 'two texts' ? (theirMarks.get(id) ?? null) : null), null),
  )
  const problem = computed(() => current(id => autosaves.get(id)?.problem.value?.detail ?? null, null))
  /** Marks that are not on the server and will not get there by themselves at the next pause. */
  const unsaved = computed<ReadonlySet<string>>(
    () => new Set([...autosaves.keys()].filter(id => ['not saved', 'two texts'].includes(stateOf(id)))),
  )
  const isSaving = computed(() => [...autosaves.keys()].some(id => stateOf(id) === 'saving'))
  /** Tries again what waits for a connection or for somebody to sign in. */
  function retry() {
    for (const autosave of autosaves.values())
      if (autosave.status.value.kind === 'kept') void autosave.flush()
  }
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
  /** Whose marks this browser keeps for want of something that was not there when they were typed. */
  const keptIds = (): string[] => ownedStorage.keys(prefix()).map(key => key.slice(prefix().length))
  return {
    write,
    keptIds,
    save,
    restore,
    retry,
    meet,
    letGo,
    isUnsaved,
    state,
    problem,
    theirs,
    unsaved,
    isSaving,
    settle,
    clear,
  }
}
