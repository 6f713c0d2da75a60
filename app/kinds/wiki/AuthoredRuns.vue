<script setup lang="ts">
import type { AuthorView } from '#shared/contributing/thread'
import type { AuthoredBlock } from '~/workers/pages.worker'
import { InlineNodes } from './InlineNodes'
import { toneOf } from './memberTones'

/** The words of a block under their writers: tone, line and initials together, so that colour alone tells nothing. */
const props = defineProps<{
  block: AuthoredBlock
  authorOf: (origin: string) => AuthorView | null
  members: readonly AuthorView[]
  /** The one whose words alone are shaded. */ only?: string | null
}>()
type Nodes = AuthoredBlock['runs'][number]['nodes']
const runs = computed(() => {
  const list: Array<{ author: AuthorView | null; nodes: Nodes[] }> = []
  for (const run of props.block.runs) {
    const author = props.authorOf(run.origin)
    const last = list.at(-1)
    if (last && last.author?.id === author?.id) last.nodes.push(run.nodes)
    else list.push({ author, nodes: [run.nodes] })
  }
  return list
})
const shaded = (author: AuthorView | null) => author !== null && (!props.only || props.only === author.id)
</script>

<template>
  <span
    v-for="(run, k) in runs"
    :key="k"
    class="run"
    :class="{ on: shaded(run.author) }"
    :style="shaded(run.author) ? toneOf(members, run.author!.id) : undefined"
    :title="run.author?.name ?? 'nobody who is here'"
    ><i v-if="shaded(run.author)" class="who">{{ run.author!.initials }}</i
    ><InlineNodes v-for="(nodes, n) in run.nodes" :key="n" :nodes="nodes"
  /></span>
</template>

<style scoped>
.run.on {
  background: color-mix(in srgb, var(--tone) 16%, transparent);
  border-bottom: 2px solid var(--tone);
  box-decoration-break: clone;
  -webkit-box-decoration-break: clone;
}
.who {
  font: 650 0.625rem/1 var(--ui);
  color: var(--ink-2);
  vertical-align: 6px;
  margin-right: 2px;
  font-style: normal;
}
</style>
