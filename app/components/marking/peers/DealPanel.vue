<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import type { PeersView } from '#shared/marking/peers'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useSending } from '~/composables/shell/useSending'
import { usePeersStore } from '~/stores/peers'
import { assignedSentence } from '~/composables/marking/assignedSentence'
import { useNotices } from '~/stores/notices'
import BeginNow from './BeginNow.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Before anything is dealt: how it will be, who is kept apart, and dealing it out. */
const props = defineProps<{ view: PeersView; nameOf: (id: string) => string; planTo: string }>()
const emit = defineEmits<{ dealt: [] }>()
const store = usePeersStore()
const notices = useNotices()
const { busy, problem, send } = useSending()
const { dayTime } = useTimes()
const one = ref('')
const other = ref('')
const works = computed(() => props.view.works.filter(w => !w.isSample))
async function deal() {
  const done = await send(async () => {
    await store.deal(Math.floor(Math.random() * 2_000_000_000))
    return true
  })
  if (!done) return
  emit('dealt')
  // once reviewing has begun they would be assigned again by themselves in a minute
  const undo = { label: 'Undo', run: () => void send(store.undeal) }
  notices.say(
    assignedSentence(store.works.map(w => store.of(w.id).length)),
    props.view.reviewBegun ? undefined : undo,
  )
}
const setApart = (pairs: Array<readonly [string, string]>) =>
  send(async () => {
    await store.keepApart(pairs)
    return true
  })
async function add() {
  if (!one.value || !other.value || one.value === other.value) return
  await setApart([...props.view.apart, [one.value, other.value]])
  one.value = other.value = ''
}
</script>

<template>
  <section class="deal">
    <h2>{{ view.dealtAt ? 'Assign reviewers again' : 'Assign reviewers' }}</h2>
    <p class="lead">
      {{ capital(inWords(works.length)) }} {{ plural(works.length, 'work') }}
      {{ works.length === 1 ? 'is' : 'are' }} in; each author reads {{ inWords(view.settings.each) }}, and
      each work gets {{ inWords(view.settings.each) }} readers. Nobody reads their own{{
        view.settings.apartIn ? ' or a groupmate’s' : ''
      }}, and no two read each other while there are enough of you.
      <NuxtLink :to="planTo">Change the plan</NuxtLink>
    </p>
    <p class="hint">
      <template v-if="view.handInEndsAt"
        >Hand-in {{ view.handInEnded ? 'ended' : 'ends' }} {{ dayTime(view.handInEndsAt) }}.</template
      >
      <template v-if="view.reviewStartsAt">
        Reviewing {{ view.reviewBegun ? 'began' : 'begins' }} {{ dayTime(view.reviewStartsAt) }}.</template
      >
    </p>
    <p v-if="view.notHandedIn.length > 0" class="hint">
      Nothing is in from {{ view.notHandedIn.map(nameOf).join(', ') }}. Who hands in late can be assigned
      readers afterwards.
    </p>
    <div class="apart">
      <h3>Kept from reading each other</h3>
      <ul v-if="view.apart.length > 0">
        <li v-for="(p, i) in view.apart" :key="p.join()">
          {{ nameOf(p[0]) }} and {{ nameOf(p[1]) }}
          <TextButton class="small" @click="setApart(view.apart.filter((_, j) => j !== i))">
            remove
          </TextButton>
        </li>
      </ul>
      <form @submit.prevent="add">
        <PickList v-model="one" class="in" aria-label="One">
          <option value="">somebody</option>
          <option v-for="p in view.people" :key="p.id" :value="p.id">{{ nameOf(p.id) }}</option>
        </PickList>
        and
        <PickList v-model="other" class="in" aria-label="The other">
          <option value="">somebody</option>
          <option v-for="p in view.people" :key="p.id" :value="p.id">{{ nameOf(p.id) }}</option></PickList
        >{{ ' ' }}<v-btn type="submit" :disabled="!one || !other || one === other">Keep apart</v-btn>
      </form>
    </div>
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p class="acts">
      <v-btn class="main" :disabled="busy || !view.handInEnded" @click="deal">Assign reviewers</v-btn
      ><span v-if="!view.handInEnded" class="hint"
        >Once hand-in has ended. If you do nothing, they are assigned when reviewing begins.</span
      ><BeginNow :view="view" :name-of="nameOf" />
    </p>
  </section>
</template>

<style scoped>
.deal {
  padding: 26px 28px;
  max-width: 46rem;
  display: grid;
  gap: 14px;
}
h2 {
  font: 600 1.25rem/1.3 var(--read);
}
h3 {
  font-size: 0.8125rem;
  letter-spacing: 0;
  margin-bottom: 5px;
}
.lead {
  font: 400 1rem/1.6 var(--read);
}
.apart ul {
  list-style: none;
  margin-bottom: 6px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.in {
  max-width: 14rem;
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
</style>
