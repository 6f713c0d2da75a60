import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import { buildThread } from '#core/contributing/buildThread'
import type { ActivityView } from '#shared/contributing/activity'
import type { TermDetail } from '#shared/kinds/lexicon/term'
import type {
  ContributionView,
  DraftView,
  LiveEvent,
  ThreadView,
  WholeContribution,
} from '#shared/contributing/thread'
import { unpackThread } from '#shared/contributing/packedThread'
import { newKey, useApi, type InputOf } from '../composables/shell/useApi'
import * as contributingEndpoints from '#shared/contributing/endpoints'

const BATCH = 150 // texts asked for at once

/** One activity's talk as this reader has it. */
export const useThreadStore = readOnlyState(
  defineStore('thread', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const activity = ref<ActivityView | null>(null)
    const thread = shallowRef<ThreadView | null>(null)

    /** @param first of a long reading only what is read first; `refresh` brings the rest */
    async function load(activityId: string, first = false) {
      const [a, t] = await Promise.all([
        api.call(contributingEndpoints.readActivity, { params: { activityId } }),
        api.call(contributingEndpoints.readThread, {
          params: { activityId },
          query: { first: first ? 'true' : 'false' },
        }),
      ])
      if (activity.value?.id !== activityId) {
        activity.value = null
        thread.value = null
      }
      activity.value = a
      thread.value = unpackThread(t)
    }

    /** Fetches what has come meanwhile; what was new on this visit stays marked as new, and texts that are here stay. */
    let latest: Promise<void> = Promise.resolve()
    let asked = 0
    const arrived = new Set<string>() // what came while the latest answer was on its way
    function refresh(): Promise<void> {
      latest = fetchAnew(++asked)
      return latest
    }
    // While something of one's own is on its way, what would take its box off the page waits: the box is to hear its answer.
    let sending = 0
    let waits = false
    let fetching = 0
    const beginSending = () => {
      sending++
    }
    function endSending() {
      sending--
      // an answer that is still on its way may have been read before what was sent
      if (sending > 0 || (!waits && fetching === 0)) return
      waits = false
      void refresh().catch(() => {})
    }
    async function whileSending<A>(act: () => Promise<A>): Promise<A> {
      beginSending()
      try {
        return await act()
      } finally {
        endSending()
      }
    }
    async function fetchAnew(mine: number): Promise<void> {
      if (!activity.value) return
      arrived.clear()
      fetching++
      const [a, packed] = await Promise.all([
        api.call(contributingEndpoints.readActivity, { params: { activityId: activity.value.id } }),
        api.call(contributingEndpoints.readThread, { params: { activityId: activity.value.id } }),
      ]).finally(() => {
        fetching--
      })
      if (sending > 0) {
        waits = true
        return
      }
      // an answer that was overtaken by a newer question is older than what is here
      if (mine !== asked) return latest
      const t = unpackThread(packed)
      const had = byId.value
      const known = new Set(t.contributions.map(c => c.id))
      const since = contributions.value.filter(c => arrived.has(c.id) && !known.has(c.id))
      activity.value = a
      thread.value = {
        ...t,
        lastSeq: Math.max(t.lastSeq, ...since.map(c => (c.view === 'whole' ? (c.seq ?? 0) : 0))),
        contributions: [
          ...t.contributions.map(c => {
            const before = had.get(c.id)
            if (c.view !== 'whole' || before?.view !== 'whole') return c
            return {
              ...c,
              isNew: c.isNew || before.isNew,
              html: c.html ?? (before.version === c.version ? before.html : null),
            }
          }),
          ...since,
        ],
      }
    }

    const contributions = computed<readonly ContributionView[]>(() => thread.value?.contributions ?? [])
    const byId = computed(() => new Map(contributions.value.map(c => [c.id, c])))
    const whole = computed<readonly WholeContribution[]>(() =>
      contributions.value.filter(c => c.view === 'whole'),
    )
    const roots = computed(() => buildThread(contributions.value))
    const draftAt = (parentId: string | null, key = ''): DraftView | null =>
      thread.value?.drafts.find(d => d.parentId === parentId && d.slot === key) ?? null

    /** Says up to which place was seen: what this page has, and nothing that came since. */
    const recordVisit = () =>
      activity.value &&
      api.call(contributingEndpoints.recordVisit, {
        params: { activityId: activity.value.id },
        body: { seq: thread.value?.lastSeq ?? 0 },
      })

    /** Takes in what an open page is told. @returns the contribution that came, if one did that was not here */
    function hear(event: LiveEvent): WholeContribution | null {
      if (!thread.value) return null
      if (
        sending > 0 &&
        (event.kind === 'opened' ||
          (event.kind === 'contribution' &&
            event.contribution.view === 'whole' &&
            event.contribution.author.isMe))
      ) {
        waits = true
        return null
      }
      if (event.kind === 'opened') {
        void refresh().catch(() => {})
        return null
      }
      if (event.kind === 'page') return null // a wiki's, arrived by its own room
      if (event.kind === 'gone') {
        arrived.delete(event.id)
        // its place stays for this visit: somebody may be answering it, and nothing that is being read moves
        set(
          contributions.value.map(c =>
            c.id === event.id
              ? { view: 'place' as const, id: c.id, parentId: c.parentId, shownAt: c.shownAt }
              : c,
          ),
        )
        return null
      }
      const came = event.contribution
      arrived.add(came.id)
      const before = byId.value.get(came.id)
      if (came.view !== 'whole') {
        set(contributions.value.map(c => (c.id === came.id ? came : c)))
        return null
      }
      // what is said to all does not know who nodded, nor what was new on this visit
      const merged =
        before?.view === 'whole'
          ? { ...came, nodded: before.nodded, isNew: before.isNew }
          : { ...came, isNew: !came.author.isMe }
      set(
        before
          ? contributions.value.map(c => (c.id === came.id ? merged : c))
          : [...contributions.value, merged],
      )
      if (came.seq !== null)
        thread.value = { ...thread.value, lastSeq: Math.max(thread.value.lastSeq, came.seq) }
      return before || came.author.isMe ? null : merged
    }
    function set(list: readonly ContributionView[]) {
      if (thread.value) thread.value = { ...thread.value, contributions: [...list] }
    }

    let wanted: readonly string[] = [] // texts to be fetched, the most urgent first
    let fetchingTexts: Promise<void> | null = null
    /** Fetches the words of those that came without: these next, before what was asked for earlier. Ends when none is wanted. */
    function needTexts(ids: readonly string[], urgent = true): Promise<void> {
      const first = new Set(ids)
      wanted = urgent ? [...ids, ...wanted.filter(id => !first.has(id))] : [...wanted, ...ids]
      fetchingTexts ??= fetchWanted().finally(() => {
        fetchingTexts = null
      })
      return fetchingTexts
    }
    async function fetchWanted() {
      try {
        for (
          const lacks = (id: string) => {
            const c = byId.value.get(id)
            return c?.view === 'whole' && c.html === null
          };
          activity.value;
        ) {
          const batch = wanted.filter(lacks).slice(0, BATCH)
          if (batch.length === 0) break
          const { texts } = await api.call(contributingEndpoints.readTexts, {
            params: { activityId: activity.value.id },
            query: { ids: batch.join(',') },
          })
          const html = new Map(texts.map(t => [t.id, t.html]))
          wanted = wanted.filter(id => !batch.includes(id))
          set(
            contributions.value.map(c =>
              c.view === 'whole' && html.has(c.id) ? { ...c, html: html.get(c.id)! } : c,
            ),
          )
        }
      } catch {
        /* asked again when they come into view */
      }
    }

    async function nod(id: string) {
      const c = whole.value.find(x => x.id === id)
      if (!c) return
      replace({ ...c, nodded: !c.nodded, nods: c.nods + (c.nodded ? -1 : 1) })
      try {
        const answer = await whileSending(() =>
          api.call(contributingEndpoints.nodToContribution, {
            params: { contributionId: id },
            body: { nodded: !c.nodded },
          }),
        )
        replace({ ...c, ...answer })
      } catch (error) {
        replace(c)
        throw error
      }
    }
    /** Marks one contribution by itself, where the activity is marked so. */
    async function markOne(
      id: string,
      mark: { readonly points: number | null; readonly done: boolean | null },
    ) {
      const c = whole.value.find(x => x.id === id)
      if (!c) return
      replace({ ...c, ...mark })
      try {
        await whileSending(() =>
          api.call(contributingEndpoints.markContribution, { params: { contributionId: id }, body: mark }),
        )
      } catch (error) {
        replace(c)
        throw error
      }
    }
    async function withdraw(id: string, withdrawn: boolean) {
      await api.call(contributingEndpoints.withdrawContribution, {
        params: { contributionId: id },
        body: { withdrawn },
      })
      await refresh()
    }
    async function edit(
      id: string,
      doc: unknown,
      baseVersion: number,
      title?: string | null,
      term?: TermDetail,
    ) {
      await api.call(contributingEndpoints.editContribution, {
        params: { contributionId: id },
        body: {
          key: newKey(),
          doc,
          baseVersion,
          ...(title !== undefined && { title }),
          ...(term && { term }),
        },
      })
      await refresh()
    }
    async function keepOnTop(id: string, onTop: boolean) {
      await api.call(contributingEndpoints.keepOnTop, { params: { contributionId: id }, body: { onTop } })
      await refresh()
    }
    /** Closes a thread, or the whole talk, to new words of students. */
    async function closeToWords(threadId: string | null, closed: boolean) {
      const body = { closed }
      if (threadId === null)
        await api.call(contributingEndpoints.closeActivityToWords, {
          params: { activityId: activity.value!.id },
          body,
        })
      else
        await api.call(contributingEndpoints.closeThreadToWords, {
          params: { contributionId: threadId },
          body,
        })
      await refresh()
    }
    async function openForReplies(id: string, opened: boolean) {
      await api.call(contributingEndpoints.openForReplies, {
        params: { contributionId: id },
        body: { opened },
      })
      await refresh()
    }
    /** Approves a contribution, or returns it to its author with a remark. */
    async function approve(
      id: string,
      answer: InputOf<typeof contributingEndpoints.approveContribution>['body'],
    ) {
      await api.call(contributingEndpoints.approveContribution, {
        params: { contributionId: id },
        body: answer,
      })
      await refresh()
    }
    function replace(c: WholeContribution) {
      set(contributions.value.map(x => (x.id === c.id ? c : x)))
    }
    return {
      activity,
      thread,
      contributions,
      byId,
      whole,
      roots,
      load,
      refresh,
      beginSending,
      endSending,
      draftAt,
      recordVisit,
      hear,
      needTexts,
      nod,
      markOne,
      withdraw,
      edit,
      keepOnTop,
      closeToWords,
      openForReplies,
      approve,
    }
  }),
)
