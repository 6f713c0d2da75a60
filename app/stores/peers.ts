import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import { consensusOf } from '#core/marking/peers/consensus'
import { flagReviews, type ReviewFlag } from '#core/marking/peers/flagReviews'
import { ownPointsOf, peerReviewsOf, reviewingOf } from '#core/marking/peers/fromReviews'
import { reviewingShare } from '#core/marking/peers/reviewingMark'
import { calculateMark } from '#core/marking/calculateMark'
import type { JudgeWrite, PeerAllocation, PeersView, PeerWork, TakeAnswer } from '#shared/marking/peers'
import { newKey, useApi, type InputOf } from '../composables/shell/useApi'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

const UNMOVED = 4 // hundredths of a point two figures may differ and count as one

/** What a mark is taken from: readers' consensus, or the marker's own points. */
export type Take = 'consensus' | 'own'

const judged = (write: JudgeWrite) =>
  write.as === 'setAside'
    ? {
        kept: false,
        setAside: write.reason,
        notDone: write.countsAsDone === false,
        setAsideTold: write.tell === true,
      }
    : { kept: write.as === 'kept', setAside: null, notDone: false, setAsideTold: false }

/** One peer review on the review desk: who reviews whom, what came in, and all that is calculated from it, at once after every act. */
export const usePeersStore = readOnlyState(
  defineStore('peers', () => {
    const api = useApi()
    const activityId = ref('')
    const view = shallowRef<PeersView | null>(null)

    async function load(id: string) {
      if (activityId.value !== id) view.value = null
      activityId.value = id
      view.value = await api.call(peersEndpoints.readPeers, { params: { activityId: id } })
    }
    const refresh = () => load(activityId.value)

    const consensus = computed(() => {
      if (!view.value) return null
      const { reviews, criteria, anchors } = peerReviewsOf(view.value)
      return consensusOf(reviews, criteria, anchors)
    })
    const people = computed(() => new Map((view.value?.people ?? []).map(p => [p.id, p])))
    /** Real reviews: dealt, by hand or extra; neither of oneself nor of a sample. */
    const real = computed(() =>
      (view.value?.allocations ?? []).filter(a => a.source !== 'self' && a.source !== 'practice'),
    )
    const works = computed(() =>
      (view.value?.works ?? []).filter(w => !w.isSample).sort((a, b) => order(a) - order(b)),
    )
    const order = (w: PeerWork) => view.value!.people.findIndex(p => p.id === w.authorId)
    /** Why a review should be looked at; those looked at already are gone from it. */
    const flags = computed<ReviewFlag[]>(() => {
      if (!consensus.value) return []
      const waiting = new Set(
        real.value.filter(a => a.state === 'in' && !a.kept && a.setAside === null).map(a => a.id),
      )
      const all = flagReviews(
        real.value
          .filter(a => a.state === 'in')
          .map(a => ({
            reviewId: a.id,
            reviewerId: a.reviewerId,
            text: a.text,
            words: a.words,
            // a teammate is called by name as a matter of course; what gives the reviewer away is not
            names: a.entryId !== null || a.namesReviewer ? a.names : [],
            namesReviewer: a.namesReviewer,
          })),
        consensus.value.apart,
        consensus.value.severity,
      )
      return all.filter(f => waiting.has(f.reviewId))
    })
    const flagged = computed(() => new Set(flags.value.map(f => f.reviewId)))
    const of = (workId: string): PeerAllocation[] => real.value.filter(a => a.entryId === workId)
    const reviewing = (enrolmentId: string) => {
      const r = reviewingOf(view.value!, consensus.value!, enrolmentId)
      return { ...r, ...reviewingShare(r, view.value!.settings.weights) }
    }
    /** The points the marker gave a work of their own, by criterion. */
    const ownOf = (work: PeerWork) => ownPointsOf(view.value?.marks ?? [], work)
    /** What the mark would be if the consensus, or the marker's own points, were taken: as the server calculates it. */
    function takes(work: PeerWork, enrolmentId: string, what: Take): number | null {
      const found = consensus.value?.authors.get(work.id)
      const v = view.value
      if (!v?.rubric || v.worth <= 0) return null
      const pointsOf = (id: string) => {
        if (what === 'own') return ownOf(work)[id] ?? null
        return found?.corrected == null ? null : Math.round(found.criteria.get(id)!.corrected!)
      }
      const criteria = v.rubric.criteria.map(c => ({
        criterionId: c.id,
        weight: c.weight,
        max: c.max,
        points: pointsOf(c.id),
      }))
      if (criteria.some(c => c.points === null)) return null
      const share = v.settings.reviewingPercent > 0 ? reviewing(enrolmentId).share : null
      const waived = v.marks.find(m => m.enrolmentId === enrolmentId)?.lateWaived ?? false
      return calculateMark(
        {
          criteria,
          combine: null,
          late: { lateness: people.value.get(enrolmentId)?.lateness ?? null, rule: v.lateRule, waived },
          override: null,
          reviewing:
            share === null
              ? null
              : { share: Math.round(share * 10_000) / 10_000, percent: v.settings.reviewingPercent },
        },
        { max: v.worth, step: v.pointStep },
      ).points
    }

    /** Whether the consensus of a work is not what was taken from it as somebody's mark any more. */
    function hasMoved(work: PeerWork, enrolmentId: string): boolean {
      const found = consensus.value?.authors.get(work.id)
      const taken = view.value?.marks.find(m => m.enrolmentId === enrolmentId)
      if (taken?.takenFrom !== 'consensus' || found?.corrected == null) return false
      return [...found.criteria].some(
        ([id, c]) => Math.abs((taken.steps[id] ?? 0) - (c.corrected ?? 0)) > UNMOVED,
      )
    }

    /** Keeps a review, sets it aside, or leaves it open again; everything that is calculated follows at once. */
    async function judge(id: string, write: JudgeWrite) {
      const before = view.value!
      view.value = {
        ...before,
        allocations: before.allocations.map(a => (a.id === id ? { ...a, ...judged(write) } : a)),
      }
      try {
        await api.call(peersEndpoints.judgeReview, {
          params: { activityId: activityId.value, allocationId: id },
          body: write,
        })
      } catch (error) {
        view.value = before
        throw error
      }
    }
    /** The marker's own points as they are typed: the estimate follows at once. */
    function setOwn(enrolmentId: string, own: Record<string, number>) {
      const v = view.value
      if (!v) return
      const rest = v.marks.filter(m => m.enrolmentId !== enrolmentId)
      const was = v.marks.find(m => m.enrolmentId === enrolmentId) ?? {
        ...{ enrolmentId, points: null, factor: null, takenFrom: null, lateWaived: false, steps: {} },
        state: 'open' as const,
      }
      view.value = { ...v, marks: [...rest, { ...was, own }] }
    }
    async function take(enrolmentIds: readonly string[], what: Take): Promise<TakeAnswer> {
      const answer = await api.call(peersEndpoints.proposePeerMarks, {
        params: here(),
        body: { key: newKey(), enrolmentIds: [...enrolmentIds], what },
      })
      await refresh()
      return answer
    }
    async function undoTake(enrolmentIds: readonly string[]): Promise<TakeAnswer> {
      const answer = await api.call(peersEndpoints.undoPeerMarks, {
        params: here(),
        body: { key: newKey(), enrolmentIds: [...enrolmentIds] },
      })
      await refresh()
      return answer
    }
    async function movePairs(
      add: ReadonlyArray<{ reviewerId: string; entryId: string }>,
      remove: ReadonlyArray<{ reviewerId: string; entryId: string }>,
    ) {
      await api.call(peersEndpoints.setReviewPairs, {
        params: { activityId: activityId.value },
        body: { key: newKey(), baseVersion: view.value!.version, add, remove },
      })
      await refresh()
    }
    const here = () => ({ activityId: activityId.value })
    async function deal(seed: number) {
      await api.call(peersEndpoints.dealReviewers, { params: here(), body: { key: newKey(), seed } })
      await refresh()
    }
    async function undeal() {
      await api.call(peersEndpoints.undealReviewers, { params: here() })
      await refresh()
    }
    async function keepApart(pairs: InputOf<typeof peersEndpoints.keepReviewersApart>['body']['pairs']) {
      await api.call(peersEndpoints.keepReviewersApart, { params: here(), body: { pairs } })
      await refresh()
    }
    async function release(released: boolean) {
      await api.call(peersEndpoints.releaseReviews, { params: here(), body: { released } })
      await refresh()
    }
    async function releaseLate(write: { readonly released: boolean; readonly upTo: string | null }) {
      await api.call(peersEndpoints.releaseReviews, { params: here(), body: { ...write, late: true } })
      await refresh()
    }
    async function share(factors: InputOf<typeof peersEndpoints.proposeShares>['body']['factors']) {
      await api.call(peersEndpoints.proposeShares, { params: here(), body: { key: newKey(), factors } })
      await refresh()
    }
    return {
      activityId,
      view,
      load,
      refresh,
      consensus,
      people,
      real,
      works,
      flags,
      flagged,
      of,
      reviewing,
      ownOf,
      takes,
      hasMoved,
      judge,
      setOwn,
      take,
      undoTake,
      movePairs,
      deal,
      undeal,
      keepApart,
      release,
      releaseLate,
      share,
    }
  }),
)
