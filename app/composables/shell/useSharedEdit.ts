import { mergeFields } from '#core/planning/mergeFields'
import { ApiProblem } from './useApi'

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
 * Something several people can edit, field by field. What is changed here is kept in the browser at once and sent at
 * every pause. When somebody else has saved meanwhile, their fields and ours are joined; where both changed the same
 * field the person decides. Nothing anyone wrote is lost on the way.
 */
export function useSharedEdit<T extends object>(options: {
  readonly stored: Stored<T>
  readonly send: (change: Partial<T>, baseVersion: number) => Promise<Stored<T>>
  readonly theirsOf: (details: unknown) => Stored<T>
  readonly auto: () => boolean // whether changes are sent by themselves
  readonly shelf: string // where the browser keeps what is not sent yet
}) {
  const base = shallowRef(options.stored.body)
  const version = ref(options.stored.version)
  const mine = shallowRef<T>(options.stored.body)
  const state = ref<EditState>('saved')
  const problem = ref<string | null>(null)
  const problems = ref<Record<string, string>>({})
  const clashes = shallowRef<ReadonlyArray<Clash<T>>>([])
  const joined = ref<string | null>(null) // who else has saved meanwhile, once their changes were joined
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> = Promise.resolve()

  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
  const changes = computed<Partial<T>>(
    () =>
      Object.fromEntries(
        Object.entries(mine.value).filter(([field, value]) => !same(value, base.value[field as keyof T])),
      ) as Partial<T>,
  )
  const changed = computed(() => Object.keys(changes.value).length > 0)

  function change(part: Partial<T>) {
    mine.value = { ...mine.value, ...part }
    problem.value = null
    problems.value = {}
    if (changed.value) {
      state.value = 'changed'
      localStorage.setItem(options.shelf, JSON.stringify({ version: version.value, change: changes.value }))
    } else putAway()
    clearTimeout(timer)
    if (options.auto() && changed.value) timer = setTimeout(() => void save(), PAUSE)
  }
  function putAway() {
    state.value = 'saved'
    localStorage.removeItem(options.shelf)
  }
  /** Sends what is changed now; sends follow each other, never overlap. */
  function save(): Promise<void> {
    clearTimeout(timer)
    sending = sending.then(saveOnce)
    return sending
  }
  async function saveOnce() {
    if (clashes.value.length > 0 || !changed.value) return
    const sent = mine.value
    state.value = 'saving'
    try {
      take(await options.send(changes.value, version.value), sent)
      problem.value = null
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (error.code === 'changedMeanwhile') return join(options.theirsOf(error.details.theirs))
      state.value = error.status === 0 ? 'kept here' : 'refused'
      problem.value = error.message
      problems.value = { ...error.details.fields }
    }
  }
  /** Takes what is stored now as the ground; what was typed since it was sent stays on top. */
  function take(stored: Stored<T>, sent: T) {
    const since = Object.fromEntries(
      Object.entries(mine.value).filter(([field, value]) => !same(value, sent[field as keyof T])),
    )
    base.value = stored.body
    version.value = stored.version
    mine.value = { ...stored.body, ...since }
    if (changed.value) {
      state.value = 'changed'
      if (options.auto()) timer = setTimeout(() => void save(), PAUSE)
    } else putAway()
  }
  async function join(theirs: Stored<T>) {
    const { merged, taken, clashes: fields } = mergeFields(base.value, mine.value, theirs.body)
    clashes.value = fields.map(field => ({
      field: field as keyof T & string,
      mine: mine.value[field as keyof T],
      theirs: theirs.body[field as keyof T],
    }))
    if (taken.length > 0 || fields.length > 0) joined.value = theirs.savedBy ?? 'Somebody else'
    base.value = theirs.body
    version.value = theirs.version
    mine.value = merged
    if (fields.length > 0) {
      state.value = 'clash'
      return
    }
    if (changed.value && options.auto()) await saveOnce()
    else state.value = changed.value ? 'changed' : 'saved'
  }
  /** Decides one field that two people changed. */
  function settle(field: keyof T, whose: 'mine' | 'theirs') {
    const clash = clashes.value.find(c => c.field === field)
    if (!clash) return
    clashes.value = clashes.value.filter(c => c !== clash)
    change({ [field]: whose === 'mine' ? clash.mine : clash.theirs } as Partial<T>)
  }
  /** Lets go of what was changed here and not sent. */
  function letGo() {
    clearTimeout(timer)
    mine.value = base.value
    clashes.value = []
    problem.value = null
    problems.value = {}
    putAway()
  }

  onMounted(() => {
    try {
      const kept = JSON.parse(localStorage.getItem(options.shelf) ?? 'null') as {
        version: number
        change: Partial<T>
      } | null
      if (kept && Object.keys(kept.change).length > 0) change(kept.change)
    } catch {
      localStorage.removeItem(options.shelf)
    } // written by an older Jovrel: nothing that can be read
  })
  onBeforeUnmount(() => {
    clearTimeout(timer)
    if (options.auto() && state.value === 'changed') void save()
  })
  return {
    base,
    mine,
    version,
    state,
    problem,
    problems,
    clashes,
    joined,
    changes,
    changed,
    change,
    save,
    settle,
    letGo,
    take: (stored: Stored<T>) => {
      base.value = stored.body
      version.value = stored.version
      mine.value = stored.body
      putAway()
    },
  }
}
