import { useNotices } from '~/stores/notices'
import { useThreadStore } from '~/stores/thread'
import { useWikiStore } from '~/stores/wiki'

/** The acts on a wiki's pages and comments, each said with its way back. */
export function useWikiActs(open: (pageId: string) => Promise<void>) {
  const store = useWikiStore()
  const thread = useThreadStore()
  const notices = useNotices()

  async function attempt<T>(act: () => Promise<T>): Promise<T | null> {
    try {
      return await act()
    } catch (problem) {
      notices.warn(problem)
      return null
    }
  }
  const undo = (act: () => Promise<unknown>, label = 'Undo') => ({ label, run: () => void attempt(act) })
  const refreshChecks = () => void thread.refresh().catch(() => {})

  /** Puts a page elsewhere in the tree. */
  const move = (id: string, parentId: string | null, beforeId: string | null) =>
    attempt(async () => {
      const { pages } = store.view!
      const page = pages.find(p => p.id === id)!
      const siblings = pages.filter(p => p.parentId === page.parentId)
      const next = siblings[siblings.indexOf(page) + 1]?.id ?? null
      await store.change(id, { place: { parentId, beforeId } })
      notices.say(
        `“${page.title}” stands elsewhere now.`,
        undo(() => store.change(id, { place: { parentId: page.parentId, beforeId: next } })),
      )
      await nextTick()
      document.querySelector<HTMLElement>(`[data-page="${id}"]`)?.focus()
    })
  const rename = (title: string) =>
    attempt(async () => {
      const { id, title: before } = store.page!
      const setTitle = async (to: string) => {
        await store.change(id, { title: to })
        await store.open(id)
      }
      await setTitle(title)
      notices.say(
        'Renamed. Links to its old name still arrive.',
        undo(() => setTitle(before)),
      )
    })
  const claim = (claimed: boolean) =>
    attempt(async () => {
      const { id } = store.page!
      await store.claim(id, claimed)
      refreshChecks()
      notices.say(
        claimed
          ? 'The page is yours to look after; everyone in the group may still write on it.'
          : 'Released. Somebody else can claim it.',
        undo(() => store.claim(id, !claimed)),
      )
    })
  const putBack = async (id: string) => {
    await store.remove(id, false)
    await open(id)
  }
  const remove = () =>
    attempt(async () => {
      const { id, title } = store.page!
      await store.remove(id, true)
      const first = store.inTree[0]?.line
      if (first) await open(first.id)
      notices.say(
        `“${title}” is out of the wiki. Nothing of it is lost.`,
        undo(() => putBack(id), 'Restore'),
      )
    })
  const resolve = (id: string, number: number | null) =>
    attempt(async () => {
      await store.resolve(id, number)
      if (number === null) notices.say('Open again.')
      else
        notices.say(
          `Version ${number} acted on it.`,
          undo(() => store.resolve(id, null)),
        )
    })
  const withdraw = (id: string) =>
    attempt(async () => {
      await store.withdraw(id, true)
      notices.say(
        'Withdrawn.',
        undo(() => store.withdraw(id, false), 'Restore'),
      )
    })
  return { attempt, undo, refreshChecks, move, rename, claim, putBack, remove, resolve, withdraw }
}
