<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { numberOfGroups, sizesOf } from '#core/people/groupSizes'
import type { GroupPerson } from '#shared/people/groups'
import { inWords, plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import RuleSets from './RuleSets.vue'
import * as peopleEndpoints from '#shared/people/endpoints'

/** A new group plan, said in a sentence: how many, mixed how, with which topics; or joined by students themselves. */
const props = defineProps<{
  seminarId: string
  people: readonly GroupPerson[]
  sections: ReadonlyArray<{ readonly id: string; readonly title: string }>
  first: boolean
}>()
const emit = defineEmits<{ made: [id: string]; close: [] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const wish = reactive({
  title: '',
  method: 'random' as 'random' | 'join' | 'hand',
  by: 'size' as 'size' | 'number',
  count: 3,
  upTo: 4,
  mixSections: true,
  most: 5,
  topics: '',
  together: [] as string[][],
  apart: [] as string[][],
})
const key = ref(newKey())
const topics = computed(() =>
  wish.topics
    .split('\n')
    .map(t => t.trim())
    .filter(Boolean),
)
const least = computed(() => Math.max(1, wish.count || 1))
const most = computed(() => Math.max(least.value, wish.upTo || least.value))
const sizes = computed(() => {
  const all = sizesOf(
    props.people.length,
    numberOfGroups(props.people.length, wish.by, least.value, most.value),
  )
  const n = all.length
  const [large, small] = [all[0] ?? 0, all.at(-1) ?? 0]
  const made =
    large === small
      ? `${props.people.length} students make ${inWords(n)} ${plural(n, 'group')} of ${large}.`
      : `${props.people.length} students make ${inWords(n)} groups: ${all.filter(s => s === large).length} of ${large}, ${all.filter(s => s === small).length} of ${small}.`
  const fits = wish.by === 'number' || (large <= most.value && small >= least.value)
  if (fits || props.people.length === 0) return made
  return `${made} There is no way to have ${sizesWished.value} in every group; this is nearest.`
})
const sizesWished = computed(() =>
  most.value > least.value ? `${least.value} to ${most.value}` : String(least.value),
)
async function make() {
  const sizing = () => {
    if (wish.method === 'hand') return 'hand' as const
    if (wish.method === 'join') return 'number' as const
    return wish.by
  }
  const rules = {
    by: sizing(),
    count: least.value,
    upTo: wish.by === 'size' ? most.value : null,
    together: wish.together,
    apart: wish.apart,
    mixSections: wish.mixSections,
    seed: Math.floor(Math.random() * 2 ** 31),
  }
  const made = await send(() =>
    api.call(peopleEndpoints.makeGroupPlan, {
      params: { seminarId: props.seminarId },
      body: {
        key: key.value,
        title: wish.title || 'Groups',
        rules,
        topics: topics.value,
        selfJoin: wish.method === 'join',
        most: wish.method === 'join' ? wish.most : null,
      },
    }),
  )
  if (made) emit('made', made.id)
  else key.value = newKey()
}
</script>

<template>
  <form class="maker" novalidate @submit.prevent="make">
    <p v-if="first" class="invite">
      Groups for a wiki, a debate, a term. Mix people at random across sections, let them join by themselves,
      or place them by hand; whatever you choose can be corrected by dragging.
    </p>
    <p class="sentence">
      A plan for
      <LineInput
        v-model="wish.title"
        class="in title"
        placeholder="City pages"
        aria-label="What the plan is for"
      />:
      <PickList v-model="wish.method" class="in" aria-label="How groups are made">
        <option value="random">people are mixed at random</option>
        <option value="join">students join by themselves</option>
        <option value="hand">I place people by hand</option></PickList
      ><template v-if="wish.method === 'random'">
        into <template v-if="wish.by === 'size'">groups of</template>{{ ' '
        }}<LineInput
          v-model.number="wish.count"
          class="in short"
          type="number"
          min="1"
          :max="Math.max(1, people.length)"
          :aria-label="wish.by === 'size' ? 'Fewest people in a group' : 'How many'"
        />{{ ' '
        }}<template v-if="wish.by === 'size'"
          >to
          <LineInput
            v-model.number="wish.upTo"
            class="in short"
            type="number"
            min="1"
            :max="Math.max(1, people.length)"
            aria-label="Most people in a group"
          />{{ ' ' }}</template
        ><PickList v-model="wish.by" class="in" aria-label="People or groups">
          <option value="size">people</option>
          <option value="number">groups</option></PickList
        ><template v-if="sections.length > 1"
          >,
          <PickList v-model="wish.mixSections" class="in" aria-label="Sections">
            <option :value="true">sections mixed as evenly as can be</option>
            <option :value="false">whatever their section</option>
          </PickList></template
        >. </template
      ><template v-else-if="wish.method === 'join'"
        >,
        <LineInput
          v-model.number="wish.count"
          class="in short"
          type="number"
          min="1"
          aria-label="How many groups"
        />
        groups with up to
        <LineInput
          v-model.number="wish.most"
          class="in short"
          type="number"
          min="1"
          aria-label="People in a group"
        />
        people each.</template
      >
      <template v-else
        >, beginning with
        <LineInput
          v-model.number="wish.count"
          class="in short"
          type="number"
          min="1"
          aria-label="How many groups"
        />
        empty groups.</template
      >
    </p>
    <p v-if="wish.method === 'random'" class="hint">{{ sizes }}</p>
    <div class="two">
      <label class="lab"
        >Topics, one a line<LinesInput
          v-model="wish.topics"
          class="in"
          rows="4"
          placeholder="Sundvik&#10;Port Amara&#10;Qasr el-Mina"
        /><small
          >Each group takes its topic's name; with fewer topics than groups they come round again.</small
        ></label
      >
      <div v-if="wish.method === 'random'" class="rules">
        <RuleSets v-model="wish.together" title="Keep together" :people="people" />
        <RuleSets v-model="wish.apart" title="Keep apart" :people="people" />
      </div>
    </div>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p class="end">
      <v-btn class="main" type="submit" :disabled="busy">Make the groups</v-btn
      ><v-btn v-if="!first" class="quiet" @click="emit('close')">Cancel</v-btn>
    </p>
  </form>
</template>

<style scoped>
.maker {
  padding: 14px 20px 24px;
  display: grid;
  gap: 10px;
  max-width: 1000px;
}
.sentence {
  font: 400 1.0625rem/2.2 var(--read);
}
.sentence .in {
  font: 600 1rem/1.3 var(--read);
  color: var(--harbour-deep);
  padding: 3px 7px;
}
.title {
  width: 13rem;
}
.short {
  width: 4.5em;
}
.two {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 26px;
}
.rules {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
  align-content: start;
}
.end {
  display: flex;
  gap: 10px;
}
@media (max-width: 800px) {
  .two,
  .rules {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
