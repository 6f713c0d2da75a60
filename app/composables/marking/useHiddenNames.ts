import type { RichNode } from '#core/contributing/richText'
import { seededRandom, shuffled } from '#core/chance/seededRandom'
import { splitNames, type NamePiece, type Unnamed } from '#core/marking/hideNames'
import { neutralName } from '#core/contributing/neutralName'
import type { AttachedFile } from '#shared/contributing/thread'
import type { DeskStudent } from '#shared/marking/desk'

/**
 * Marking without knowing whose work it is: students stand in an order of chance and go by numbers, in the strip, in what
 * they and others wrote, in greetings and quotations. What is stored keeps its names.
 */
export function useHiddenNames(activityId: () => string, students: () => readonly DeskStudent[]) {
  const on = ref(false)
  const key = () => `jovrel:names-hidden:${activityId()}`
  onMounted(() => {
    on.value = localStorage.getItem(key()) === '1'
  })
  function toggle() {
    on.value = !on.value
    localStorage.setItem(key(), on.value ? '1' : '0')
  }
  const order = computed(() =>
    on.value
      ? shuffled(
          [...students()].sort((a, b) => a.id.localeCompare(b.id)),
          seededRandom(seedOf(activityId())),
        )
      : [...students()],
  )
  const people = computed<Unnamed[]>(() =>
    on.value
      ? order.value.map((s, i) => ({
          givenName: s.givenName,
          familyName: s.familyName,
          alias: `Student ${i + 1}`,
        }))
      : [],
  )
  const aliasOf = computed(() => new Map(order.value.map((s, i) => [s.id, `Student ${i + 1}`])))
  /** The strip's students as they are to be called. */
  const called = computed<DeskStudent[]>(() =>
    on.value
      ? order.value.map(s => {
          const name = aliasOf.value.get(s.id)!
          return { ...s, name, givenName: name, familyName: name }
        })
      : [...students()],
  )
  const pieces = (text: string): NamePiece[] =>
    on.value ? splitNames(text, people.value) : [{ text, alias: null }]
  const hide = (text: string): string =>
    pieces(text)
      .map(p => p.alias ?? p.text)
      .join('')

  // which form of a name an alias stood for in the letter at hand, so that writing puts it back as it was
  const forms = new Map<string, string>()
  function hideDoc(node: RichNode): RichNode {
    if (!on.value) return node
    if (node.text !== undefined) {
      const cut = pieces(node.text)
      for (const p of cut) if (p.alias && !forms.has(p.alias)) forms.set(p.alias, p.text)
      return { ...node, text: cut.map(p => p.alias ?? p.text).join('') }
    }
    return node.content ? { ...node, content: node.content.map(hideDoc) } : node
  }
  function showDoc(node: RichNode): RichNode {
    if (!on.value) return node
    if (node.text !== undefined)
      return {
        ...node,
        text: node.text.replace(
          /\bStudent (\d+)\b/g,
          (alias, n: string) => forms.get(alias) ?? order.value[Number(n) - 1]?.givenName ?? alias,
        ),
      }
    return node.content ? { ...node, content: node.content.map(showDoc) } : node
  }
  return {
    on,
    toggle,
    order,
    called,
    pieces,
    hide,
    hideDoc,
    showDoc,
    /** Files under names that do not say whose they are. */
    hideFiles: (files: readonly AttachedFile[]): AttachedFile[] =>
      files.map((f, i) => (on.value ? { ...f, name: neutralName(`File ${i + 1}`, f.name) } : f)),
    nameOf: (s: { id: string; name: string }) => (on.value ? (aliasOf.value.get(s.id) ?? s.name) : s.name),
    givenOf: (s: { id: string; givenName: string }) =>
      on.value ? (aliasOf.value.get(s.id) ?? s.givenName) : s.givenName,
  }
}
export type HiddenNames = ReturnType<typeof useHiddenNames>

const seedOf = (id: string): number => [...id].reduce((n, c) => (n * 31 + c.charCodeAt(0)) >>> 0, 7)
