<script setup lang="ts">
import type { WikiShares } from '#shared/kinds/wiki/wiki'
import { toneOf } from './memberTones'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Over a page's history: what changed or who wrote what, with the key to its marks. */
type Member = WikiShares['members'][number]['member']
const tab = defineModel<'changes' | 'authors'>({ required: true })
const short = defineModel<boolean>('short', { required: true })
const only = defineModel<string | null>('only', { required: true })
defineProps<{ members: readonly Member[]; shades: readonly Member[] }>()
const TABS = [
  { value: 'changes', text: 'Changes' },
  { value: 'authors', text: 'Who wrote what' },
] as const
const toggle = (id: string) => {
  only.value = only.value === id ? null : id
}
</script>

<template>
  <div class="tabs">
    <PlainButton
      v-for="t in TABS"
      :key="t.value"
      :class="{ on: tab === t.value }"
      :aria-pressed="tab === t.value"
      @click="tab = t.value"
    >
      {{ t.text }}
    </PlainButton>
    <span class="grow" />
    <template v-if="tab === 'changes'"
      ><span class="key"><ins>added</ins> <del>removed</del> <i>moved</i></span
      ><TextButton class="small" :aria-pressed="!short" @click="short = !short">
        {{ short ? 'show the whole page' : 'only what changed' }}
      </TextButton></template
    >
    <span v-else class="key"
      ><PlainButton
        v-for="m in shades"
        :key="m.id"
        class="shade"
        :style="toneOf(members, m.id)"
        :aria-pressed="only === m.id"
        @click="toggle(m.id)"
      >
        <b>{{ m.initials }}</b> {{ m.givenName }}
      </PlainButton></span
    >
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  padding: 8px 40px 0;
  min-height: 44px;
  border-bottom: 1px solid var(--line-soft);
  font-size: 0.84375rem;
}
.tabs > button:not(.link) {
  border: 0;
  background: none;
  padding: 6px 0 8px;
  cursor: pointer;
  color: var(--ink-2);
  border-bottom: 2px solid transparent;
  margin-bottom: -1px;
}
.tabs > button.on:not(.link) {
  color: var(--ink);
  font-weight: 650;
  border-bottom-color: var(--harbour);
}
.key {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font: 400 0.875rem/1.4 var(--read);
}
.key ins {
  text-decoration: underline;
  text-decoration-color: var(--moss);
  text-decoration-thickness: 2px;
  background: var(--moss-soft);
}
.key del {
  color: var(--brick);
}
.key i {
  font-style: normal;
  color: var(--k-review);
  border-left: 4px double var(--k-review);
  padding-left: 6px;
}
.shade {
  border: 0;
  background: color-mix(in srgb, var(--tone) 16%, transparent);
  border-bottom: 2px solid var(--tone);
  font: 400 0.8125rem/1.5 var(--ui);
  padding: 0 6px;
  cursor: pointer;
  color: var(--ink);
}
.shade b {
  font-size: 0.6875rem;
}
@media (max-width: 1000px) {
  .tabs {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
