import type { Component } from 'vue'
import type { ActivityKind } from '#core/kinds/kind'
import BlogPage from './blog/BlogPage.vue'
import DiscussionPage from './discussion/DiscussionPage.vue'
import ExitNotePage from './exitNote/ExitNotePage.vue'
import JournalPage from './journal/JournalPage.vue'
import LexiconPage from './lexicon/LexiconPage.vue'
import ReadingPage from './reading/ReadingPage.vue'
import ReviewPage from './review/ReviewPage.vue'
import WikiPage from './wiki/WikiPage.vue'

/** The page each kind of activity has; a new kind adds its line, and the compiler asks for it. */
export const KIND_PAGES: Readonly<Record<ActivityKind, Component>> = {
  discussion: DiscussionPage,
  journal: JournalPage,
  blog: BlogPage,
  exitNote: ExitNotePage,
  reading: ReadingPage,
  review: ReviewPage,
  wiki: WikiPage,
  lexicon: LexiconPage,
}
