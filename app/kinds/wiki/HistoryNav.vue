<script setup lang="ts">
import type { PageView } from '#shared/kinds/wiki/wiki'
import { useWikiStore } from '~/stores/wiki'
import VersionRail from './VersionRail.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** The pages of a wiki with who claimed them, and the versions of the one that is open. */
const props = defineProps<{ page: PageView | null; newest: number; a: number; b: number }>()
const emit = defineEmits<{ open: [pageId: string]; choose: [a: number, b: number] }>()
const store = useWikiStore()
const INDENT = { first: 16, level: 14 } // pixels
function claimedWords(line: (typeof store.inTree)[number]['line']) {
  if (line.claimedBy) return line.claimedBy.isMe ? 'you' : line.claimedBy.givenName
  return 'everyone'
}
const lines = computed(() =>
  store.inTree.map(({ line, depth }) => ({
    id: line.id,
    title: line.title,
    isOpen: line.id === props.page?.id,
    indent: `${INDENT.first + depth * INDENT.level}px`,
    note: line.versions === 0 ? `${claimedWords(line)}, no text yet` : claimedWords(line),
  })),
)
</script>

<template>
  <nav aria-label="Pages and versions">
    <p class="head">Pages <span>claimed by</span></p>
    <ul>
      <li v-for="line in lines" :key="line.id">
        <PlainButton
          :class="{ on: line.isOpen }"
          :style="{ paddingLeft: line.indent }"
          @click="emit('open', line.id)"
        >
          <span>{{ line.title }}</span><em>{{ line.note }}</em>
        </PlainButton>
      </li>
    </ul>
    <template v-if="page && newest > 0"
      ><p class="head versions">
        Versions
        <span title="A click takes the version with the one before it; with Shift, it is compared from there."
          >choose two</span
        >
      </p>
      <VersionRail :versions="page.versions" :a="a" :b="b" @choose="(from, to) => emit('choose', from, to)"
    /></template>
  </nav>
</template>

<style scoped>
nav {
  border-right: 1px solid var(--line);
  overflow-y: auto;
  padding-top: 12px;
  font-size: 0.8125rem;
}
ul {
  list-style: none;
}
ul button {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 4px 16px;
  border-left: 4px solid transparent;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink);
}
ul button:hover {
  background: var(--sunken);
}
ul .on {
  background: var(--sheet);
  border-left-color: var(--k-wiki);
  font-weight: 650;
}
em {
  font-style: normal;
  font-weight: 400;
  color: var(--ink-3);
  text-align: right;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 0 20px;
  font-weight: 650;
  line-height: 18px;
  margin-bottom: 4px;
}
.head span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
.versions {
  margin-top: 14px;
}
</style>
