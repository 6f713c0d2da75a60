import { useDeskStore } from '~/stores/desk'
import { usePeersStore } from '~/stores/peers'
import { useHiddenNames } from './useHiddenNames'

const NUMBERED = /^Student \d+$/ // how a hidden name reads

/** What people are called on the review desk: by their names, or by numbers while names are hidden. */
export function usePeerNames(activityId: string) {
  const store = usePeersStore()
  const desk = useDeskStore()
  const hidden = useHiddenNames(
    () => activityId,
    () => desk.desk?.students ?? [],
  )
  const position = computed(() => new Map(hidden.order.value.map((s, i) => [s.id, i])))

  function nameOf(id: string): string {
    const person = store.people.get(id)
    return person ? hidden.nameOf(person) : ''
  }
  function givenOf(id: string): string {
    const person = store.people.get(id)
    return person ? hidden.givenOf(person) : ''
  }
  /** The last name alone, where there is little room; hidden, the number with its word. */
  function lastOf(id: string): string {
    const name = nameOf(id)
    return hidden.on.value ? name : (name.split(' ').at(-1) ?? '')
  }
  /** One letter, or the number of a hidden name. */
  function initialOf(id: string): string {
    const name = nameOf(id)
    return NUMBERED.test(name) ? name.replace('Student ', '') : (store.people.get(id)?.familyName[0] ?? '?')
  }
  /** With names hidden the order of names is hidden, too. */
  const inOrder = <T>(list: readonly T[], idOf: (item: T) => string): T[] =>
    hidden.on.value
      ? [...list].sort((a, b) => position.value.get(idOf(a))! - position.value.get(idOf(b))!)
      : [...list]
  return { hidden, nameOf, givenOf, lastOf, initialOf, inOrder }
}
export type PeerNames = ReturnType<typeof usePeerNames>
