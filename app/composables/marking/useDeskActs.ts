import type { RichNode } from '#core/contributing/richText'
import { fitsLevel, levelFor } from '#core/marking/stepPoints'
import type { RubricView } from '#shared/contributing/activity'
import type { Step } from '#shared/marking/desk'
import { inWords, plural } from '#core/language'
import { sentenceKeys } from '../shell/sentenceKeys'
import type { Key } from '../shell/useKeys'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { chosenPassage } from './useCitation'
import { withPart, withWords } from './letterParts'
import { useDeskUndo } from './useDeskUndo'
import { points } from './points'

interface Surroundings {
  readonly show: (id: string | null) => Promise<void>
  readonly called: (student: { id: string; givenName: string }) => string
  readonly afterReturn: () => void
}

/** Puts the keyboard into the first of these that is there, after what a text holds; a button opens its field. */
function focusOn(selector: string) {
  const field = document.querySelector<HTMLElement>(selector)
  field?.focus()
  if (field instanceof HTMLTextAreaElement) field.setSelectionRange(field.value.length, field.value.length)
  if (field instanceof HTMLInputElement) field.select()
  else if (field instanceof HTMLButtonElement) field.click()
}

/** What a marker does on the desk, and the keys for it. */
export function useDeskActs({ show, called, afterReturn }: Surroundings) {
  const store = useDeskStore()
  const notices = useNotices()
  const undo = useDeskUndo(called)
  const active = ref(0) // the criterion at hand
  const busy = ref(false)
  const open = reactive({ phrases: false, preview: false, history: false, returning: false, keysAt: false })
  const rubric = computed<RubricView | null>(() => store.record?.rubric ?? store.activity?.rubric ?? null)
  const criterion = computed(() => rubric.value?.criteria[active.value] ?? null)
  /** The criterion a key has just set a step for: what is written next is about it, though the desk has gone on. */
  const judged = ref<string | null>(null)
  watch(active, (_, before) => {
    if (rubric.value?.criteria[before]?.id !== judged.value) judged.value = null
  })
  /** What a remark or a phrase is about. */
  const about = computed(() => rubric.value?.criteria.find(c => c.id === judged.value) ?? criterion.value)
  /** While a second marking is being made, steps go into it and nothing else is written. */
  const second = computed(() =>
    store.record?.second?.isMine && store.record.second.state === 'asked' ? store.record.second : null,
  )
  const steps = computed<readonly Step[]>(() => second.value?.steps ?? store.record?.mark.steps ?? [])

  function setSteps(next: Step[]) {
    if (second.value) void store.saveSecond(next, second.value.remark, false).catch(notices.warn)
    else store.change({ steps: next })
  }
  function setStep(criterionId: string, levelId: string | null, given?: number) {
    const level = rubric.value?.criteria.find(c => c.id === criterionId)?.levels.find(l => l.id === levelId)
    const others = steps.value.filter(s => s.criterionId !== criterionId)
    setSteps(
      level
        ? [
            ...others,
            {
              criterionId,
              levelId: level.id,
              points: given !== undefined && fitsLevel(level, given) ? given : level.points,
            },
          ]
        : [...others],
    )
  }
  /** A typed number of points: the step whose range holds it. */
  function setPoints(criterionId: string, hundredths: number): boolean {
    const level = levelFor(rubric.value?.criteria.find(c => c.id === criterionId)?.levels ?? [], hundredths)
    if (level) setStep(criterionId, level.id, hundredths)
    return level !== null
  }
  function setByKey(n: number) {
    const level = criterion.value?.levels[n - 1]
    if (!criterion.value || !level) return
    setStep(criterion.value.id, level.id)
    if (level.pointsFrom !== null && level.pointsFrom < level.points)
      void nextTick(() => document.querySelector<HTMLInputElement>('.crit.on .typed input')?.select())
    else if (active.value < rubric.value!.criteria.length - 1) {
      judged.value = criterion.value.id
      active.value++
    }
  }
  const move = (by: number) => {
    active.value = Math.min((rubric.value?.criteria.length ?? 1) - 1, Math.max(0, active.value + by))
  }
  function acceptSuggested() {
    for (const s of store.record?.suggested ?? [])
      if (!steps.value.some(x => x.criterionId === s.criterionId)) setStep(s.criterionId, s.levelId)
  }

  function cite() {
    const passage = chosenPassage()
    if (!criterion.value || second.value) return
    if (!passage) {
      notices.say('Choose some words in the record first, then cite them.')
      return
    }
    const { title } = criterion.value
    store.cite({ ...passage, criterionId: criterion.value.id })
    window.getSelection()?.removeAllRanges()
    notices.say(`Cited for ${title.toLowerCase()}.`, {
      label: 'Quote it in the letter',
      run: () => quote(passage.exact, title),
    })
  }
  const letter = () => store.record?.mark.letter as RichNode | undefined
  const quote = (exact: string, title: string) => {
    const l = letter()
    if (l) {
      store.change({ letter: withWords(l, `“${exact}”`, title) })
      writeAt(title)
    }
  }
  const insert = (text: string, title: string | null) => {
    const l = letter()
    if (l) store.change({ letter: withWords(l, text, title) })
  }
  /** Begins, or goes on with, the part of the letter under the criterion's name. */
  function writeAbout() {
    const l = letter()
    if (!about.value || !l || second.value) return
    store.change({ letter: withPart(l, about.value.title).letter })
    writeAt(about.value.title)
  }
  function writeAt(title: string) {
    void nextTick(() => {
      const editor = document.querySelector<HTMLElement>('.paper [contenteditable="true"]')
      editor?.focus()
      const blocks = [...(editor?.children ?? [])]
      const at = blocks.findIndex(b => b.tagName === 'H3' && b.textContent?.trim() === title)
      const next = blocks.findIndex((b, i) => i > at && b.tagName === 'H3')
      const last = blocks[(next < 0 ? blocks.length : next) - 1]
      if (!last) return
      const range = document.createRange()
      range.selectNodeContents(last)
      range.collapse(false)
      const selection = window.getSelection()
      selection?.removeAllRanges()
      selection?.addRange(range)
    })
  }

  async function goOn(what: 'hold' | 'return') {
    const r = store.record
    if (!r || busy.value) return
    if (second.value) return handOver()
    busy.value = true
    try {
      const mark = await store.act(what)
      if (!mark) return
      const id = r.student.id
      const said = `${what === 'hold' ? 'Held' : 'Returned'}: ${points(mark.points)} of ${points(store.desk?.worth ?? 0)} for ${called(r.student)}.`
      notices.say(said, {
        label: 'Undo',
        run: async () => {
          if (!(await store.act(what === 'hold' ? 'reopen' : 'take-back', id)) && store.problem)
            notices.warn(new Error(store.problem))
          await show(id)
        },
      })
      afterReturn()
      if (what === 'hold') await show(store.nextReady())
    } catch (problem) {
      notices.warn(problem)
    } finally {
      busy.value = false
    }
  }
  async function handOver() {
    try {
      await store.saveSecond([...steps.value], second.value?.remark ?? '', true)
      notices.say('Handed over. Both markings are shown now.')
    } catch (problem) {
      notices.warn(problem)
    }
  }
  async function returnThese(ids: readonly string[], at: string | null, when: string) {
    open.returning = false
    try {
      const n = await store.returnHeld(ids, at)
      notices.say(
        at
          ? `${n === 1 ? 'One mark returns' : `${inWords(n)} marks return`} ${when}.`
          : `Returned to ${inWords(n)} ${plural(n, 'student')}.`,
        { label: 'Undo', run: () => undo.takeBack('undo') },
      )
      afterReturn()
    } catch (problem) {
      notices.warn(problem)
    }
  }
  const neighbour = (by: number) => {
    active.value = 0
    void show(store.neighbour(by))
  }

  const keys = computed<Key[]>(() => [
    {
      keys: '1 2 3 4 5 6 7 8 9',
      does: 'set a step and go to the next criterion',
      run: key => setByKey(Number(key)),
    },
    { keys: 'ArrowUp ArrowDown', does: 'another criterion', run: key => move(key === 'ArrowDown' ? 1 : -1) },
    {
      keys: '0',
      does: 'remove the step',
      run: () => {
        if (criterion.value) setStep(criterion.value.id, null)
      },
    },
    { keys: 'a', does: 'accept the suggested step', run: acceptSuggested },
    ...sentenceKeys(() => [...document.querySelectorAll<HTMLElement>('.record [data-line]')]),
    { keys: 'e', does: 'cite the chosen words', run: cite },
    { keys: 'w', does: 'write about the criterion', run: writeAbout },
    { keys: 'l', does: 'the letter', run: () => focusOn('.paper [contenteditable="true"]') },
    { keys: 'm', does: 'the marker’s note', run: () => focusOn('.letter .note textarea') },
    { keys: 'o', does: 'the points', run: () => focusOn('.crit.on .typed input, [data-points]') },
    {
      keys: 'p',
      does: 'a phrase',
      run: () => {
        open.phrases = true
      },
    },
    {
      keys: 'v',
      does: 'the letter as the student will see it',
      run: () => {
        open.preview = true
      },
    },
    {
      keys: 'y',
      does: 'what has happened to this mark',
      run: () => {
        open.history = !open.history
      },
    },
    ...undo.keys,
    { keys: '[ ]', does: 'another student', run: key => neighbour(key === ']' ? 1 : -1) },
    {
      keys: 'g',
      does: 'next who is ready',
      run: () => {
        active.value = 0
        void show(store.nextReady())
      },
    },
    { keys: 'Ctrl+Enter', does: 'hold and go on', run: () => void goOn('hold') },
  ])
  return {
    active,
    busy,
    open,
    rubric,
    criterion,
    about,
    second,
    steps,
    setStep,
    setPoints,
    cite,
    insert,
    writeAbout,
    goOn,
    handOver,
    returnThese,
    keys,
  }
}
