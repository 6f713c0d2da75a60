import type { Component } from 'vue'
import type { ActivityKind } from '#core/kinds/kind'
import BlogLines from './blog/BlogLines.vue'
import DiscussionLines from './discussion/DiscussionLines.vue'
import JournalLines from './journal/JournalLines.vue'
import LexiconLines from './lexicon/LexiconLines.vue'
import ReadingLines from './reading/ReadingLines.vue'
import ReviewLines from './review/ReviewLines.vue'
import WikiLines from './wiki/WikiLines.vue'

/** The sentences of the composer that one kind alone has; null where it has none. A new kind adds its line. */
export const KIND_LINES: Readonly<Record<ActivityKind, Component | null>> = {
  discussion: DiscussionLines,
  journal: JournalLines,
  blog: BlogLines,
  wiki: WikiLines,
  reading: ReadingLines,
  review: ReviewLines,
  lexicon: LexiconLines,
  exitNote: null,
}
