import { createAutosave, type Autosave, type AutosaveOptions, type SaveStatus } from '~/autosave/autosave'
import { useWhenBack } from './useWhenBack'

const timers = {
  set: (act: () => void, milliseconds: number) => setTimeout(act, milliseconds),
  clear: (timer: unknown) => clearTimeout(timer as ReturnType<typeof setTimeout> | undefined), // set above
}

/** An autosave for as long as a component stands: it looks for what was kept, and sends what is left when one goes. */
export function useAutosave<T>(options: Omit<AutosaveOptions<T>, 'timers' | 'onStep'>) {
  const { value, status, version, isUnstored, problem, theirs, ...autosave } = reactiveAutosave(options)
  const again = () => {
    if (status.value.kind === 'kept') void autosave.flush()
  }
  useWhenBack(again, () => {
    if (options.auto?.() ?? true) void autosave.flush()
  })
  onMounted(() => void autosave.restore())
  onBeforeUnmount(autosave.close)
  return { value, status, version, isUnstored, problem, theirs, ...autosave }
}

const open = new Set<Pick<Autosave<unknown>, 'flush' | 'hold' | 'forget'>>() // in this tab
/** Sends what is changed in every text that is open in this tab. */
export const flushAll = async (): Promise<void> => {
  await Promise.all([...open].map(autosave => autosave.flush()))
}

/** Lets go of every text that is open in this tab: nothing of it is sent or kept any more. */
export function letGoOfAll(): void {
  for (const autosave of open) {
    void autosave.hold()
    autosave.forget()
  }
}

/** An autosave whose state can be watched. Whoever makes it closes it. */
export function reactiveAutosave<T>(options: Omit<AutosaveOptions<T>, 'timers' | 'onStep'>) {
  const autosave = createAutosave<T>({
    ...options,
    timers,
    onStep: () => {
      value.value = autosave.value()
      status.value = autosave.status()
      version.value = autosave.version()
      isUnstored.value = autosave.isUnstored()
    },
  })
  if (import.meta.client) open.add(autosave)
  const value = shallowRef<T>(options.value)
  const status = shallowRef<SaveStatus<T>>({ kind: 'stored' })
  const version = ref(options.version)
  const isUnstored = ref(false)
  /** Why what stands here is not stored, where the server or the line has said so. */
  const problem = computed(() =>
    status.value.kind === 'kept' || status.value.kind === 'refused' ? status.value.problem : null,
  )
  /** The other text, while somebody has to choose. */
  const theirs = computed(() => (status.value.kind === 'conflict' ? status.value.theirs.value : null))
  return {
    ...autosave,
    close: () => {
      open.delete(autosave)
      autosave.close()
    },
    value: shallowReadonly(value),
    status: shallowReadonly(status),
    version: readonly(version),
    isUnstored: readonly(isUnstored),
    problem,
    theirs,
  }
}

export type WatchedAutosave<T> = ReturnType<typeof useAutosave<T>>
