import { ownedStorage } from '~/autosave/ownedStorage'

/** What is typed of a message to several. */
interface KeptMessage {
  readonly subject: string
  readonly text: string
  readonly own: Record<string, string> // words for one alone, by enrolment
  readonly left: readonly string[] // enrolments left out
}

/**
 * A message that is kept in this browser, under whom it is to, until it is sent.
 *
 * @param draftKey under which it is kept
 * @param suggested what it begins with
 */
export function useKeptMessage(
  draftKey: () => string,
  suggested: () => Pick<KeptMessage, 'subject' | 'text'>,
) {
  const subject = ref('')
  const text = ref('')
  const own = ref<Record<string, string>>({})
  const left = ref<string[]>([])
  function begin() {
    subject.value = suggested().subject
    text.value = suggested().text
    own.value = {}
    left.value = []
  }
  begin()
  onMounted(() => {
    const kept = ownedStorage.readJson(draftKey()) as KeptMessage | null // as it is put below
    if (!kept) return
    subject.value = kept.subject
    text.value = kept.text
    own.value = { ...kept.own }
    left.value = [...kept.left]
  })
  watch(
    [subject, text, own, left],
    () =>
      void ownedStorage.put(
        draftKey(),
        JSON.stringify({ subject: subject.value, text: text.value, own: own.value, left: left.value }),
      ),
    { deep: true },
  )
  return { subject, text, own, left, begin }
}
