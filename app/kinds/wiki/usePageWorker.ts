import type { RichNode } from '#core/contributing/richText'
import type { Answer, Ask, AuthoredBlock, Compared } from '~/workers/pages.worker'
import type { VersionView } from '#shared/kinds/wiki/wiki'
import { useApi } from '~/composables/shell/useApi'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

type Want<T> = T extends unknown ? Omit<T, 'id'> : never

/** Comparing and shading in a worker of the page; versions are fetched once and kept while the page stands. */
export function usePageWorker(pageId: () => string | null) {
  const api = useApi()
  const versions = new Map<string, Promise<VersionView>>()
  const waiting = new Map<number, (answer: Answer) => void>()
  let worker: Worker | undefined
  let last = 0

  function version(number: number): Promise<VersionView> {
    const key = `${pageId()}:${number}`
    const known = versions.get(key)
    if (known) return known
    const fetching = api.call(wikiEndpoints.readPageVersion, { params: { pageId: pageId()!, number } })
    versions.set(key, fetching)
    fetching.catch(() => versions.delete(key))
    return fetching
  }
  async function ask(question: Want<Ask>): Promise<Answer> {
    worker ??= start()
    const id = ++last
    return new Promise((resolve, reject) => {
      waiting.set(id, answer =>
        'problem' in answer
          ? reject(new Error('This could not be compared. Load the page again.'))
          : resolve(answer),
      )
      worker!.postMessage({ ...question, id })
    })
  }
  function start() {
    const made = new Worker(new URL('../../workers/pages.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<Answer>) => {
      waiting.get(data.id)?.(data)
      waiting.delete(data.id)
    }
    return made
  }
  const EMPTY: RichNode = { type: 'doc' }
  /** What changed from one version to another; 0 is the empty page. */
  async function compare(a: number, b: number): Promise<Compared> {
    const [before, after] = await Promise.all([a > 0 ? version(a) : null, version(b)])
    const answer = await ask({
      what: 'compare',
      a: (before?.doc ?? EMPTY) as RichNode,
      b: after.doc as RichNode,
    })
    return (answer as { compared: Compared }).compared
  }
  async function authors(number: number): Promise<readonly AuthoredBlock[]> {
    const { doc, origins } = await version(number)
    const answer = await ask({ what: 'authors', doc: doc as RichNode, origins })
    return (answer as { authored: readonly AuthoredBlock[] }).authored
  }
  onBeforeUnmount(() => worker?.terminate())
  return { version, compare, authors }
}
