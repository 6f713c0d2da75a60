import { inWords, plural } from '#core/language'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import type { Key } from '../shell/useKeys'
import type { Undone } from './deskDeeds'

type Called = (student: { id: string; givenName: string }) => string

/** Taking back and doing again on a marking desk, said in words; and what a change has done to a mark that was settled. */
export function useDeskUndo(called: Called) {
  const store = useDeskStore()
  const notices = useNotices()

  async function takeBack(which: 'undo' | 'redo') {
    try {
      const undone = await store.takeBack(which)
      if (undone === null)
        notices.say(which === 'undo' ? 'There is nothing to undo.' : 'There is nothing to do again.')
      else if (!undone.isDone)
        notices.warn(new Error(store.problem ?? 'This cannot be undone any more: the mark was changed.'))
      else
        notices.say(
          undoneWords(undone, which, called),
          which === 'undo' ? { label: 'Redo', run: () => takeBack('redo') } : undefined,
        )
    } catch (problem) {
      notices.warn(problem)
    }
  }
  const undoAct = { label: 'Undo', run: () => takeBack('undo') }
  const nameOf = (id: string) => {
    const student = store.desk?.students.find(s => s.id === id)
    return student ? called(student) : 'This student'
  }
  watch(
    () => store.changedAfterReturn,
    id => {
      if (id === null) return
      notices.say(
        `${nameOf(id)} has this mark already. Your change is held, and they keep what they were given until you return it again.`,
        undoAct,
      )
      store.heardOfChange()
    },
  )
  watch(
    () => store.reopened,
    id => {
      if (id === null) return
      notices.say(`${nameOf(id)}’s mark is not held any more: a criterion has no step.`, undoAct)
      store.heardOfChange()
    },
  )
  const keys: readonly Key[] = [
    {
      keys: 'z',
      does: 'undo what you did last, whoever’s record it was on',
      run: () => void takeBack('undo'),
    },
    { keys: 'Z', does: 'do again what you undid', run: () => void takeBack('redo') },
  ]
  return { keys, takeBack }
}

/** What was taken back, or done again, in a sentence. */
export function undoneWords({ deed, record }: Undone, which: 'undo' | 'redo', called: Called): string {
  if (deed.kind === 'returnMany') {
    const marks = `${inWords(deed.ids.length)} ${plural(deed.ids.length, 'mark')}`
    if (which === 'redo') return deed.at ? `Set to return again: ${marks}.` : `Returned again: ${marks}.`
    return deed.at ? `Undone: ${marks} will not return by themselves.` : `Undone: ${marks} are held again.`
  }
  const whose = `${record ? called(record.student) : 'The student'}’s`
  if (deed.kind === 'change')
    return which === 'undo' ? `Undone on ${whose} record.` : `Done again on ${whose} record.`
  const settled = { open: 'is open again', held: 'is held', returned: 'is returned' }
  return `${whose} mark ${settled[record?.mark.state ?? 'open']}.`
}
