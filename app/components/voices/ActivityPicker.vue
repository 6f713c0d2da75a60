<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { ActivityKind } from '#core/kinds/kind'
import type { VoicesView } from '#shared/voices/voices'
import { kindInSentence } from '~/kinds/words'
import { inWords } from '#core/language'
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Which activities are looked at; neither kind nor ids: the whole seminar. */
export interface ActivityFilter {
  readonly kind?: ActivityKind
  readonly ids: readonly string[]
}

/** What is looked at: the whole seminar, all of a kind, one activity by its title, or several by ticking them. */
const props = defineProps<{ activities: VoicesView['activities']; filter: ActivityFilter }>()
const emit = defineEmits<{ filter: [filter: ActivityFilter] }>()
const open = ref(false)
const kinds = computed(() => [...new Set(props.activities.map(a => a.kind))])
const label = computed(() => {
  const { kind, ids } = props.filter
  if (kind) return `every ${kindInSentence(kind)}`
  if (ids.length === 0) return 'the whole seminar'
  if (ids.length === 1) return props.activities.find(a => a.id === ids[0])?.title ?? 'one activity'
  return `${inWords(ids.length)} activities`
})
function alone(filter: ActivityFilter) {
  emit('filter', filter)
  open.value = false
}
// ticking goes on from what is looked at, in the order of the term
const tick = (id: string) =>
  emit('filter', {
    ids: props.activities
      .map(a => a.id)
      .filter(x => (x === id ? !props.filter.ids.includes(id) : props.filter.ids.includes(x))),
  })
</script>

<template>
  <CardMenu v-model="open" label="What is looked at">
    <template #opener="{ opener }"
      ><PlainButton
        v-bind="opener"
        class="in what"
        aria-haspopup="dialog"
        :aria-label="`What is looked at: ${label}`"
      >
        <span>{{ label }}</span>
      </PlainButton></template
    >
    <div class="list">
      <p class="wide">
        <PlainButton :class="{ on: !filter.kind && filter.ids.length === 0 }" @click="alone({ ids: [] })">
          the whole seminar
        </PlainButton>
        <template v-if="kinds.length > 1"
          ><PlainButton
            v-for="k in kinds"
            :key="k"
            :class="{ on: filter.kind === k }"
            @click="alone({ kind: k, ids: [] })"
          >
            every {{ kindInSentence(k) }}
          </PlainButton></template
        >
      </p>
      <p v-if="activities.length === 0" class="hint">No activity has begun yet.</p>
      <p v-else class="hint">A title alone, or several by ticking them.</p>
      <ul>
        <li v-for="a in activities" :key="a.id" :style="{ '--kind': `var(--k-${a.kind})` }">
          <PlainCheckbox
            :aria-label="`Also ${a.title}`"
            :checked="filter.ids.includes(a.id)"
            @change="tick(a.id)"
          /><PlainButton :class="{ on: filter.ids.includes(a.id) }" @click="alone({ ids: [a.id] })">
            {{ a.title }}
          </PlainButton>
        </li>
      </ul>
    </div></CardMenu
  >
</template>

<style scoped>
.what {
  max-width: 17rem;
  padding: 4px 26px 4px 8px;
  font-size: 0.8125rem;
  text-align: left;
  cursor: pointer;
  position: relative;
}
.what span {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what::after {
  content: '';
  position: absolute;
  right: 10px;
  top: 50%;
  width: 6px;
  height: 6px;
  border: solid var(--ink-2);
  border-width: 0 1.5px 1.5px 0;
  transform: translateY(-70%) rotate(45deg);
}
.list {
  width: min(400px, 92vw);
  max-height: 70vh;
  overflow: auto;
  padding: 10px 14px;
}
.wide {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line-soft);
}
.wide button {
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: none;
  color: var(--ink);
  padding: 3px 9px;
  font-size: 0.8125rem;
  cursor: pointer;
}
.wide .on {
  background: var(--harbour-soft);
  border-color: var(--harbour);
}
.hint {
  margin-top: 8px;
}
ul {
  list-style: none;
  margin-top: 4px;
}
li {
  display: flex;
  gap: 10px;
  align-items: baseline;
  border-left: 3px solid var(--kind);
  padding: 3px 0 3px 9px;
  margin-top: 3px;
}
li button {
  border: 0;
  background: none;
  color: var(--ink);
  font: 400 0.9375rem/1.35 var(--read);
  text-align: left;
  cursor: pointer;
  padding: 1px 0;
}
li button:hover {
  text-decoration: underline;
}
li .on {
  font-weight: 600;
}
</style>
