import { mergeFields } from '#core/planning/mergeFields'
import type { Theirs } from '~/autosave/autosave'
import { failureOf } from '~/autosave/failureOf'
import { localDraft } from '~/autosave/localDraft'
import { useAutosave, type WatchedAutosave } from './useAutosave'

export type EditState = 'saved' | 'changed' | 'saving' | 'refused' | 'kept here' | 'clash'
export interface Stored<T> {
  readonly version: number
  readonly body: T
  readonly savedBy: string | null
}
export interface Clash<T> {
  readonly field: keyof T & string
  readonly mine: unknown
  readonly theirs: unknown
}

const PAUSE = 800 // milliseconds without a change before it is sent

/**
 * What was stored, as it was typed: the server takes the spaces off the ends of a text, and whoever has typed one is going
 * to type the next word.
 */
function asTyped<T extends object>(sent: T, stored: T): T {
  const fields = Object.entries(stored).map(([field, value]) => {
    const typed: unknown = sent[field as keyof T]
    return [field, typeof typed === 'string' && typed.trim() === value ? typed : (value as unknown)]
  })
  return Object.fromEntries(fields) as T // the same fields
}

/**
 * Something several people can edit, field by field. What is changed here is kept in the browser at once and sent at
 * every pause. When somebody else has saved meanwhile, their fields and ours are joined; where both changed the same
 * field the person decides. Nothing anyone wrote is lost on the way.
 */
export function useSharedEdit<T extends object>(options: {
  readonly stored: Stored<T>
  readonly send: (change: Partial<T>, baseVersion: number) => Promise<Stored<T>>
  readonly theirsOf: (details: unknown) => Stored<T>
  readonly auto: () => boolean // whether changes are sent by themselves
  readonly draftKey: string // where the browser keeps what is not sent yet
  readonly revive?: (change: Partial<T>) => Partial<T> // brings what an earlier release kept into the form of this one
}) {
  const base = shallowRef(options.stored.body)
  const clashes = shallowRef<ReadonlyArray<Clash<T>>>([])
  const joined = ref<string | null>(null) // who else has saved meanwhile, once their changes were joined
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
  const differing = (now: T, from: T) =>
    Object.fromEntries(
      Object.entries(now).filter(([field, value]) => !same(value, from[field as keyof T])),
    ) as Partial<T> // fields of T, some of them
  const autosave: WatchedAutosave<T> = useAutosave<T>({
    value: options.stored.body,
    version: options.stored.version,
    pause: PAUSE,
    auto: options.auto,
    isWorthSending: value => Object.keys(differing(value, base.value)).length > 0,
    send: async (sent, version) => {
      const answer = await options.send(differing(sent, base.value), version!)
      const stored = { ...answer, body: asTyped(sent, answer.body) }
      base.value = stored.body
      // what the server has made of it stands here, but for what was typed since it was sent
      const since = differing(autosave.value.value, sent)
      if (Object.keys(since).length === 0) autosave.adopt(stored.body)
      else autosave.change({ ...stored.body, ...since })
      return stored
    },
    join,
    failureOf: error =>
      failureOf(error, theirs => {
        const { body, version, savedBy } = options.theirsOf(theirs)
        return { value: body, version, savedBy }
      }),
    // only what is changed is kept: the rest is as it is stored when one comes back
    localDraft: localDraft<T>(options.draftKey, {
      write: ({ value, version }) => ({ version, change: differing(value, base.value) }),
      read: (written, now) => {
        const kept = written as { readonly change: Partial<T> } // only this form is written under that name
        const change = options.revive?.(kept.change) ?? kept.change
        if (Object.keys(change).length === 0) return null
        return { value: { ...base.value, ...change }, version: now.version }
      },
    }),
  })
  /** What only one of two has changed is joined at once; only where both changed the same is there something to decide. */
  function join(theirs: Theirs<T>) {
    const { merged, taken, clashes: fields } = mergeFields(base.value, mine.value, theirs.value)
    clashes.value = fields.map(field => ({
      field: field as keyof T & string, // of T, whose fields were merged
      mine: mine.value[field as keyof T],
      theirs: theirs.value[field as keyof T],
    }))
    if (taken.length > 0 || fields.length > 0) joined.value = theirs.savedBy ?? 'Somebody else'
    base.value = theirs.value
    return { value: merged, isDecided: fields.length === 0 }
  }
  const mine = autosave.value
  const { status, version } = autosave
  const changes = computed(() => differing(mine.value, base.value))
  const changed = computed(() => Object.keys(changes.value).length > 0)
  const details = autosave.problem
  const problem = computed(() => details.value?.detail ?? null)
  const problems = computed<Readonly<Record<string, string>>>(() => details.value?.fields ?? {})
  const state = computed<EditState>(() => {
    const { kind } = status.value
    const isInBrowser = status.value.kind === 'kept' && status.value.isInBrowser
    if (kind === 'conflict') return 'clash'
    if (kind === 'sending') return 'saving'
    if (kind === 'refused') return 'refused'
    if (kind === 'kept' && details.value) return isInBrowser ? 'kept here' : 'refused'
    return changed.value ? 'changed' : 'saved'
  })

  function change(part: Partial<T>) {
    const next = { ...mine.value, ...part }
    if (Object.keys(differing(next, base.value)).length > 0 || status.value.kind === 'conflict')
      autosave.change(next)
    else autosave.reset(base.value, version.value)
  }
  /** Decides one field that two people changed. */
  function settle(field: keyof T, whose: 'mine' | 'theirs') {
    const clash = clashes.value.find(c => c.field === field)
    if (!clash || status.value.kind !== 'conflict') return
    clashes.value = clashes.value.filter(c => c !== clash)
    const decided = { ...mine.value, [field]: whose === 'mine' ? clash.mine : clash.theirs }
    const { version: onto } = status.value.theirs
    if (clashes.value.length > 0) autosave.change(decided)
    else if (Object.keys(differing(decided, base.value)).length > 0) autosave.rebase(decided, onto)
    else autosave.reset(decided, onto)
  }
  /** Lets go of what was changed here and not sent. */
  function letGo() {
    const onto = status.value.kind === 'conflict' ? status.value.theirs.version : version.value
    clashes.value = []
    autosave.reset(base.value, onto)
  }

  return {
    base: shallowReadonly(base),
    mine,
    version,
    state,
    problem,
    problems,
    clashes: shallowReadonly(clashes),
    joined: readonly(joined),
    changes,
    changed,
    change,
    save: autosave.flush,
    settle,
    letGo,
    take: (stored: Stored<T>) => {
      base.value = stored.body
      autosave.reset(stored.body, stored.version)
    },
  }
}
export type SharedEdit<T extends object> = ReturnType<typeof useSharedEdit<T>>
