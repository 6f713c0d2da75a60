import type { Component } from 'vue'
import type { ActivityKind } from '#core/contributing/kinds/kind'
import DiscussionPage from './discussion/DiscussionPage.vue'

/** The page each kind of activity has. A new kind adds its folder here and one line. */
export const KIND_PAGES: Readonly<Partial<Record<ActivityKind, Component>>> = { discussion: DiscussionPage }
