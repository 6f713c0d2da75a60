import type { ThreadNode } from '#core/contributing/buildThread'
import { gatherPassages, type Passage } from '#core/kinds/reading/passages'
import type { NoteView } from '#shared/kinds/reading/reading'
import type { ContributionView, WholeContribution } from '#shared/contributing/thread'
import { useReadingStore } from '~/stores/reading'
import { useSeminarStore } from '~/stores/seminar'
import { useThreadStore } from '~/stores/thread'

export type Filter = 'everyone' | 'group' | 'mine' | 'open'
/** A note with its answers, in the order they came. */
export interface MarginNote {
  readonly c: WholeContribution & { readonly note: NoteView }
  readonly replies: readonly WholeContribution[]
  readonly open: boolean
}

/** The notes of a reading as the page shows them: by page, filtered, gathered by passage. */
export function useMargin() {
  const thread = useThreadStore()
  const reading = useReadingStore()
  const seminar = useSeminarStore()
  const filter = ref<Filter>('everyone')
  const tag = ref<string | null>(null)

  const all = computed<MarginNote[]>(() =>
    thread.roots.flatMap(({ item, replies }) => {
      if (item.view !== 'whole' || !item.note) return []
      const answers = flat(replies)
      return [
        {
          c: item as MarginNote['c'],
          replies: answers,
          open:
            item.note.kind === 'question' &&
            !item.note.settled &&
            !item.withdrawn &&
            answers.every(r => r.withdrawn || r.author.id === item.author.id),
        },
      ]
    }),
  )
  const myGroup = computed(
    () =>
      new Set(
        reading.view?.groups.find(
          g =>
            g.memberIds.some(id => all.value.some(n => n.c.author.isMe && n.c.author.id === id)) ||
            !seminar.isStaff,
        )?.memberIds ?? [],
      ),
  )
  const tags = computed(() => [...new Set(all.value.flatMap(n => n.c.note.tags))].sort())
  const shown = computed(() =>
    all.value.filter(
      n =>
        (tag.value === null || n.c.note.tags.includes(tag.value)) &&
        (filter.value === 'everyone' ||
          (filter.value === 'mine' && (n.c.author.isMe || n.replies.some(r => r.author.isMe))) ||
          (filter.value === 'open' && n.open) ||
          (filter.value === 'group' &&
            (n.c.author.isStaff || n.c.author.isMe || myGroup.value.has(n.c.author.id)))),
    ),
  )
  const anchored = computed(() => shown.value.filter(n => n.c.note.how !== 'lost'))
  const lost = computed(() => shown.value.filter(n => n.c.note.how === 'lost'))
  const byPart = computed(() => {
    const map = new Map<number, MarginNote[]>()
    for (const n of anchored.value) map.set(n.c.note.part, [...(map.get(n.c.note.part) ?? []), n])
    return map
  })
  const passages = computed<ReadonlyMap<number, readonly Passage[]>>(
    () =>
      new Map(
        [...byPart.value].map(([part, notes]) => [
          part,
          gatherPassages(
            notes.flatMap(n =>
              n.c.note.at
                ? [{ id: n.c.id, start: n.c.note.at.start, end: n.c.note.at.end, own: n.c.author.isMe }]
                : [],
            ),
          ),
        ]),
      ),
  )
  const partOf = computed(() => new Map(anchored.value.map(n => [n.c.id, n.c.note.part])))
  /** Notes in the order of the text. */
  const inOrder = computed(() =>
    [...anchored.value].sort(
      (a, b) =>
        a.c.note.part - b.c.note.part ||
        (a.c.note.at?.start ?? 0) - (b.c.note.at?.start ?? 0) ||
        a.c.shownAt.localeCompare(b.c.shownAt),
    ),
  )
  const openQuestions = computed(() => inOrder.value.filter(n => n.open))
  return {
    filter,
    tag,
    tags,
    all,
    shown,
    lost,
    byPart,
    passages,
    partOf,
    inOrder,
    openQuestions,
    hasGroup: computed(() => myGroup.value.size > 0),
  }
}

const flat = (nodes: ReadonlyArray<ThreadNode<ContributionView>>): WholeContribution[] =>
  nodes
    .flatMap(n => [...(n.item.view === 'whole' ? [n.item] : []), ...flat(n.replies)])
    .sort((a, b) => a.shownAt.localeCompare(b.shownAt))
