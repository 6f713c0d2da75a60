import { levelAt } from '#core/marking/peers/fromReviews'
import { inWords, plural } from '#core/language'
import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { usePeersStore, type Take } from '~/stores/peers'
import type { PeerWork } from '#shared/marking/peers'
import { useSeminarStore } from '~/stores/seminar'
import { points } from './points'
import type { PeerNames } from './usePeerNames'

interface Pair {
  readonly reviewerId: string
  readonly entryId: string
}
interface Factor {
  readonly enrolmentId: string
  readonly factor: number | null
}
type Judgement = Parameters<ReturnType<typeof usePeersStore>['judge']>[1]

/** The instructor's acts on a peer review, each said with its way back. One at a time. */
export function usePeerActs(seminarId: string, { nameOf, givenOf }: PeerNames) {
  const store = usePeersStore()
  const desk = useDeskStore()
  const notices = useNotices()
  const seminar = useSeminarStore()
  const view = computed(() => store.view!)
  const busy = ref(false)

  async function attempt(act: () => Promise<unknown>) {
    if (busy.value) return
    busy.value = true
    try {
      await act()
    } catch (problem) {
      notices.warn(problem)
    } finally {
      busy.value = false
    }
  }
  function judgementOf(reviewId: string): Judgement {
    const review = store.real.find(a => a.id === reviewId)!
    if (review.setAside !== null)
      return {
        as: 'setAside',
        reason: review.setAside,
        countsAsDone: !review.notDone,
        tell: review.setAsideTold,
      }
    return review.kept ? { as: 'kept' } : { as: 'open' }
  }
  const judge = (reviewId: string, write: Judgement, said: string) =>
    attempt(async () => {
      const before = judgementOf(reviewId)
      await store.judge(reviewId, write)
      notices.say(said, { label: 'Undo', run: () => void judge(reviewId, before, 'As it was before.') })
    })
  async function reopen(workId: string, author: string, show: (workId: string) => Promise<void>) {
    await show(workId)
    if (!desk.records.has(author)) await desk.fetchRecord(author)
    await desk.act('reopen', author)
    await store.refresh()
  }
  /** Fetches anew what points were taken, or undone, for. */
  async function afterTaking(authors: readonly string[], shown: string) {
    for (const author of authors) desk.records.delete(author)
    await desk.reload()
    await desk.fetchRecord(shown)
    void seminar.load(seminarId).catch(() => {})
  }
  /** Takes the consensus, or own points, as the mark of one work's authors, and goes on to the next. */
  const take = (
    work: PeerWork,
    what: Take,
    next: () => string | null,
    show: (workId: string) => Promise<void>,
  ) =>
    attempt(async () => {
      const { id, authorId, authorIds } = work
      if (store.takes(work, authorId, what) === null) return
      await desk.save()
      const answer = await store.take(authorIds, what)
      await afterTaking(authorIds, authorId)
      const [refused] = answer.left
      if (refused) {
        notices.warn(new Error(`${givenOf(refused.enrolmentId)}: ${refused.why}`))
        return
      }
      const held = points(view.value.marks.find(m => m.enrolmentId === authorId)?.points ?? 0)
      const nextId = next()
      if (nextId) await show(nextId)
      const said =
        what === 'own'
          ? `${givenOf(authorId)}: ${held}, your own points, is held.`
          : `${givenOf(authorId)}: ${held} is held.`
      notices.say(nextId ? said : `${said} That was the last one.`, {
        label: 'Undo',
        run: () => undoTake(id, authorId, authorIds, show),
      })
    })
  /** Takes the means of what teammates gave as marks of their own. */
  const takeMeans = (enrolmentIds: string[]) =>
    attempt(async () => {
      const answer = await store.take(enrolmentIds, 'consensus')
      const people = (n: number) => `${inWords(n)} ${plural(n, 'person', 'people')}`
      const taken = answer.taken.length > 0 ? `The marks of ${people(answer.taken.length)} are held.` : ''
      const left = answer.left.map(l => `${nameOf(l.enrolmentId)}: ${l.why}`)
      if (answer.taken.length === 0) notices.warn(new Error(left[0] ?? 'There is nothing to take yet.'))
      else
        notices.say([taken, ...left].join(' '), {
          label: 'Undo',
          run: () => void undoMeans(answer.taken),
        })
      void seminar.load(seminarId).catch(() => {})
    })
  const undoMeans = (enrolmentIds: string[]) =>
    attempt(async () => {
      const answer = await store.undoTake(enrolmentIds)
      const left = answer.left.map(l => `${nameOf(l.enrolmentId)}: ${l.why}`)
      notices.say(['The marks are as they were before.', ...left].join(' '))
    })
  /** Puts a work's marks back as they were before they were taken, and shows the work. */
  const undoTake = (
    workId: string,
    authorId: string,
    authorIds: readonly string[],
    show: (workId: string) => Promise<void>,
  ) =>
    attempt(async () => {
      await desk.save()
      const answer = await store.undoTake(authorIds)
      await afterTaking(authorIds, authorId)
      await show(workId)
      const [refused] = answer.left
      if (refused) notices.warn(new Error(`${givenOf(refused.enrolmentId)}: ${refused.why}`))
      else notices.say(`${givenOf(authorId)}’s mark is as it was before.`)
    })
  /** The instructor's own points for one criterion, beside the reviewers'. */
  function setOwn(work: PeerWork, criterionId: string, value: number | null) {
    const rest = Object.entries(store.ownOf(work)).filter(([id]) => id !== criterionId)
    const given: Record<string, number> = Object.fromEntries(
      value === null ? rest : [...rest, [criterionId, value]],
    )
    const ownSteps = view.value.rubric!.criteria.flatMap(c =>
      given[c.id] === undefined
        ? []
        : [{ criterionId: c.id, levelId: levelAt(c.levels, given[c.id]!).id, points: given[c.id]! }],
    )
    desk.change({ ownSteps })
    store.setOwn(work.authorId, given)
  }
  function movedSentence(added: Pair | undefined, removed: Pair | undefined) {
    const authorOf = (entryId: string) => nameOf(store.works.find(w => w.id === entryId)?.authorId ?? '')
    if (added && removed) return `${nameOf(added.reviewerId)} reads ${authorOf(added.entryId)} now.`
    if (added) return `${nameOf(added.reviewerId)} reads ${authorOf(added.entryId)}, too.`
    return `${nameOf(removed!.reviewerId)} no longer reads ${authorOf(removed!.entryId)}.`
  }
  const move = (add: Pair[], remove: Pair[]) =>
    attempt(async () => {
      await store.movePairs(add, remove)
      notices.say(movedSentence(add[0], remove[0]), { label: 'Undo', run: () => void move(remove, add) })
    })
  const release = (released: boolean) =>
    attempt(async () => {
      await store.release(released)
      const isOfTeammates = view.value.settings.subject === 'teammates'
      const people = isOfTeammates ? view.value.people.length : store.works.length
      notices.say(
        released
          ? `Released: ${inWords(people)} people are told, all at the same time.`
          : 'Held again. Whoever has read has read.',
        { label: 'Undo', run: () => void release(!released) },
      )
    })
  /** Lets out what came in after the release, all of it at the same moment. */
  const releaseLate = () =>
    attempt(async () => {
      const { waiting, releasedUpTo } = view.value
      await store.releaseLate({ released: true, upTo: null })
      notices.say(
        waiting === 1 ? 'The late review is released.' : `${inWords(waiting)} late reviews are released.`,
        {
          label: 'Undo',
          run: () =>
            attempt(async () => {
              await store.releaseLate({ released: false, upTo: releasedUpTo })
              notices.say('Held again. Whoever has read has read.')
            }),
        },
      )
    })
  const share = (factors: Factor[]) =>
    attempt(async () => {
      const marks = view.value.shares?.marks ?? []
      const before = factors.map(({ enrolmentId }) => ({
        enrolmentId,
        factor: marks.find(m => m.enrolmentId === enrolmentId)?.factor ?? null,
      }))
      await store.share(factors)
      notices.say(
        'The group’s points are shared by these factors. Marks already returned are held again until you return them.',
        { label: 'Undo', run: () => void share(before) },
      )
    })
  return { busy: readonly(busy), judge, take, takeMeans, reopen, setOwn, move, release, releaseLate, share }
}
