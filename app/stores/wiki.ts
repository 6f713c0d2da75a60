import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import { v7 } from 'uuid'
import { titleKey } from '#core/kinds/wiki/wikiSettings'
import type {
  PageLine,
  PageView,
  PagePassage,
  VersionWrite,
  WikiShares,
  WikiView,
} from '#shared/kinds/wiki/wiki'
import { newKey, useApi } from '../composables/shell/useApi'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'
import * as contributingEndpoints from '#shared/contributing/endpoints'

/** One wiki as this reader has it, with the page they are at. */
export const useWikiStore = readOnlyState(
  defineStore('wiki', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const activityId = ref<string | null>(null)
    const view = shallowRef<WikiView | null>(null)
    const page = shallowRef<PageView | null>(null)
    const shares = shallowRef<WikiShares | null>(null)
    const here = () => ({ params: { activityId: activityId.value! }, query: { group: view.value?.groupId } })

    async function load(id: string, group: string | null, pageId: string | null) {
      if (activityId.value !== id) {
        view.value = null
        page.value = null
        shares.value = null
      }
      activityId.value = id
      view.value = await api.call(wikiEndpoints.readWiki, { params: { activityId: id }, query: { group } })
      const first = view.value.pages.find(p => p.id === pageId) ?? inTree.value[0]?.line
      page.value = first ? await api.call(wikiEndpoints.readPage, { params: { pageId: first.id } }) : null
    }
    let asked = 0
    /** What has changed meanwhile: the tree, and the page if it is that one. */
    async function refresh(pageId: string | null = page.value?.id ?? null): Promise<void> {
      const mine = ++asked
      const [wiki, at] = await Promise.all([
        api.call(wikiEndpoints.readWiki, here()),
        pageId !== null && pageId === page.value?.id
          ? api.call(wikiEndpoints.readPage, { params: { pageId } }).catch(() => null)
          : Promise.resolve(page.value),
      ])
      if (mine !== asked) return
      view.value = wiki
      if (!wiki.pages.some(p => p.id === page.value?.id)) page.value = null
      else if (at && at.id === page.value?.id) page.value = at // another page may have been opened meanwhile
    }
    async function open(pageId: string) {
      page.value = await api.call(wikiEndpoints.readPage, { params: { pageId } })
    }
    async function loadShares() {
      shares.value = await api.call(wikiEndpoints.readWikiShares, here())
    }

    /** Pages as they stand below each other, from the top. */
    const inTree = computed<ReadonlyArray<{ line: PageLine; depth: number }>>(() => {
      const pages = view.value?.pages ?? []
      const below = (parentId: string | null, depth: number): Array<{ line: PageLine; depth: number }> =>
        pages
          .filter(p => p.parentId === parentId)
          .flatMap(line => [{ line, depth }, ...below(line.id, depth + 1)])
      return below(null, 0)
    })
    const line = computed(() => view.value?.pages.find(p => p.id === page.value?.id) ?? null)
    /** The page a title leads to, by its name now, else by one it had. */
    function pageOf(title: string): PageLine | undefined {
      const key = titleKey(title)
      return (
        view.value?.pages.find(p => titleKey(p.title) === key) ??
        view.value?.pages.find(p => p.formerKeys.includes(key))
      )
    }
    const linkedFrom = computed(() =>
      page.value
        ? (view.value?.pages ?? []).filter(
            p => p.id !== page.value!.id && p.linksTo.some(t => pageOf(t)?.id === page.value!.id),
          )
        : [],
    )

    async function make(title: string, parentId: string | null = null): Promise<string> {
      const { id } = await api.call(wikiEndpoints.makePage, {
        params: { activityId: activityId.value! },
        body: {
          id: v7(),
          groupId: view.value!.groupId,
          title,
          parentId,
        },
      })
      await refresh()
      return id
    }
    const change = async (
      id: string,
      patch: { title?: string; place?: { parentId: string | null; beforeId: string | null } },
    ) => {
      await api.call(wikiEndpoints.changePage, { params: { pageId: id }, body: patch })
      await refresh()
    }
    const claim = async (id: string, claimed: boolean) => {
      await api.call(wikiEndpoints.claimPage, { params: { pageId: id }, body: { claimed } })
      await refresh()
    }
    const remove = async (id: string, removed: boolean) => {
      await api.call(wikiEndpoints.removePage, { params: { pageId: id }, body: { removed } })
      await refresh()
    }
    const writing = (id: string, is: boolean) =>
      api.call(wikiEndpoints.showWriting, { params: { pageId: id }, body: { writing: is } })
    const save = (id: string, write: Omit<VersionWrite, 'doc'> & { doc: unknown }) =>
      api.call(wikiEndpoints.savePageVersion, { params: { pageId: id }, body: write })
    const restore = async (id: string, number: number, base: number) => {
      const answer = await api.call(wikiEndpoints.restorePageVersion, {
        params: { pageId: id, number },
        body: {
          key: newKey(),
          base,
        },
      })
      await refresh()
      return answer
    }
    const comment = async (
      id: string,
      doc: unknown,
      passage: PagePassage | null,
      parentId: string | null,
      key: string,
    ) => {
      const answer = await api.call(wikiEndpoints.commentOnPage, {
        params: { pageId: id },
        body: {
          key,
          doc,
          passage,
          parentId,
        },
      })
      await refresh()
      return answer
    }
    const resolve = async (commentId: string, number: number | null) => {
      await api.call(wikiEndpoints.resolveComment, {
        params: { contributionId: commentId },
        body: { number },
      })
      await refresh()
    }
    const withdraw = async (commentId: string, withdrawn: boolean) => {
      await api.call(contributingEndpoints.withdrawContribution, {
        params: { contributionId: commentId },
        body: { withdrawn },
      })
      await refresh()
    }
    return {
      activityId,
      view,
      page,
      shares,
      inTree,
      line,
      linkedFrom,
      pageOf,
      load,
      refresh,
      open,
      loadShares,
      make,
      change,
      claim,
      remove,
      writing,
      save,
      restore,
      comment,
      resolve,
      withdraw,
    }
  }),
)
