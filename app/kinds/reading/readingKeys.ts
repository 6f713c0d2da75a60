import type { TextForm } from '#core/kinds/reading/reading'
import type { Key } from '~/composables/shell/useKeys'
import type { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import type { useFind } from './useFind'
import type { useMargin } from './useMargin'
import type { usePlayer } from './usePlayer'
import type { useNoteComposer } from './useNoteComposer'
import type { useReadingNavigation } from './useReadingNavigation'

interface Rooms {
  readonly navigation: ReturnType<typeof useReadingNavigation>
  readonly composer: ReturnType<typeof useNoteComposer>
  readonly find: ReturnType<typeof useFind>
  readonly margin: ReturnType<typeof useMargin>
  readonly player: ReturnType<typeof usePlayer>
  readonly desk: ReturnType<typeof useTalkDesk>['desk']
  readonly zoomBy: (factor: number) => void
}

/** What the keys do while a text is read. */
export const readingKeys = (
  form: TextForm | null,
  { navigation, composer, find, margin, player, desk, zoomBy }: Rooms,
): Key[] => [
  { keys: 'j', does: 'the next note', run: () => navigation.step(1) },
  { keys: 'k', does: 'the note before', run: () => navigation.step(-1) },
  {
    keys: 'u',
    does: 'the next question without an answer',
    run: () => navigation.step(1, margin.openQuestions.value),
  },
  {
    keys: ']',
    does: 'the next page of yours, first those without a note of your own',
    run: navigation.nextOwn,
  },
  {
    keys: '[',
    does: 'the page before',
    run: () => void navigation.show(Math.max(1, navigation.here.value - 1)),
  },
  { keys: '.', does: 'choose the next sentence', run: () => void composer.sentence(1) },
  { keys: ',', does: 'choose the sentence before', run: () => void composer.sentence(-1) },
  { keys: '>', does: 'one word more', run: () => composer.stretch(1) },
  { keys: '<', does: 'one word less', run: () => composer.stretch(-1) },
  { keys: 'n', does: 'a note on the chosen words', run: () => void composer.take('note') },
  { keys: 'q', does: 'a question about them', run: () => void composer.take('question') },
  { keys: 'l', does: 'a link from them to another passage', run: () => void composer.take('link') },
  {
    keys: 'r',
    does: 'answer the note you are at',
    run: () => {
      if (navigation.lit.value && desk.mayWrite) desk.reply(navigation.lit.value)
    },
  },
  { keys: '/', does: 'find words in the text', run: () => find.field.value?.focus() },
  ...(form === 'recording'
    ? [
        { keys: 'p', does: 'play or pause', run: player.toggle },
        {
          keys: 't',
          does: 'choose what is being said',
          run: () => {
            const cue = player.cue.value
            if (cue) {
              player.pause()
              void composer.noteCue(cue.start, cue.end)
            }
          },
        },
      ]
    : []),
  ...(form === 'paper'
    ? [
        { keys: '+', does: 'larger', run: () => zoomBy(1.2) },
        { keys: '-', does: 'smaller', run: () => zoomBy(1 / 1.2) },
      ]
    : []),
  {
    keys: 'Escape',
    does: 'let the chosen words go',
    run: () => {
      if (composer.composedNote.value && !composer.composedNote.value.kind) composer.close()
    },
  },
]
