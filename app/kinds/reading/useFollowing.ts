import type { ReadingView } from '#shared/kinds/reading/reading'
import type { useChoice } from './useChoice'
import type { usePlayer } from './usePlayer'
import type { useReadingNavigation } from './useReadingNavigation'

const BELOW = 80 // pixels that what is being said keeps from the lower edge
const ABOVE = 120 // pixels above it once it was brought into sight

/** Keeps what a recording is saying in sight, unless something is being written. */
export function useFollowing(
  text: () => ReadingView['text'],
  player: ReturnType<typeof usePlayer>,
  navigation: ReturnType<typeof useReadingNavigation>,
  choice: ReturnType<typeof useChoice>,
  isWriting: () => boolean,
) {
  const follows = ref(true)
  watch(player.currentLineStart, start => {
    if (start === null || !follows.value || !player.playing.value || isWriting()) return
    const part = navigation.partAt(start)
    const drawn = choice.drawn.get(part)
    if (!drawn) {
      void navigation.show(part)
      return
    }
    const cue = text()?.cues.find(c => c.start === start)
    const box = cue && drawn.lines(cue.start, cue.end)[0]
    const edges = navigation.edges()
    if (!box || (box.bottom <= edges.bottom - BELOW && box.top >= edges.top)) return
    const isStill = matchMedia('(prefers-reduced-motion: reduce)').matches
    navigation.bring(part, cue, ABOVE, isStill ? 'auto' : 'smooth')
  })
  return { follows }
}
