<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { DeskView, MarkingQueue } from '#shared/marking/desk'
import { inWords, plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as markingEndpoints from '#shared/marking/endpoints'

/** Who marks whom: records dealt out among the markers, and some marked a second time. */
const props = defineProps<{
  activity: MarkingQueue['activities'][number]
  markers: MarkingQueue['markers']
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ done: [said: string] }>()
const api = useApi()
const { busy, problem, send } = useSending()
const desk = shallowRef<DeskView | null>(null)
const among = reactive(new Set<string>())
const twice = reactive(new Set<string>())
const second = ref('')
watch(
  open,
  async is => {
    if (!is) return
    desk.value = null
    twice.clear()
    desk.value = await send(() =>
      api.call(markingEndpoints.readDesk, { params: { activityId: props.activity.id } }),
    )
    among.clear()
    for (const s of desk.value?.students ?? []) if (s.markerId) among.add(s.markerId)
    if (among.size === 0) for (const m of props.markers) among.add(m.id)
  },
  { immediate: true },
)
const students = computed(() => desk.value?.students.filter(s => !s.practice) ?? [])
const markerName = (id: string | null) => props.markers.find(m => m.id === id)?.name ?? null
const secondOf = (id: string) => desk.value?.seconds.find(s => s.enrolmentId === id) ?? null
function secondWords(id: string) {
  const second = secondOf(id)
  if (!second) return null
  const state = second.state === 'asked' ? '' : `, ${second.state}`
  return `second: ${markerName(second.markerId)}${state}`
}
const toggle = (set: Set<string>, id: string) => {
  if (!set.delete(id)) set.add(id)
}
async function deal(markerIds: string[]) {
  if (
    (await send(() =>
      api.call(markingEndpoints.divideMarking, {
        params: { activityId: props.activity.id },
        body: { key: newKey(), enrolmentIds: students.value.map(s => s.id), markerIds },
      }),
    )) === null
  )
    return
  open.value = false
  emit(
    'done',
    markerIds.length === 0
      ? 'The records are everyone’s again.'
      : `${students.value.length} records assigned to ${inWords(markerIds.length)} ${plural(markerIds.length, 'marker')}.`,
  )
}
async function ask() {
  if (
    (await send(() =>
      api.call(markingEndpoints.askSecondMarker, {
        params: { activityId: props.activity.id },
        body: { key: newKey(), enrolmentIds: [...twice], markerId: second.value },
      }),
    )) === null
  )
    return
  open.value = false
  emit(
    'done',
    `${markerName(second.value)} is asked to mark ${inWords(twice.size)} ${plural(twice.size, 'record')} a second time.`,
  )
}
</script>

<template>
  <ModalDialog v-model="open" max-width="560" aria-label="Sharing the marking out">
    <div class="card dialog">
      <h2>{{ activity.title }}</h2>
      <section>
        <h3>Shares</h3>
        <p class="muted">Records are assigned in the order of names, evenly.</p>
        <p class="who">
          <label v-for="m in markers" :key="m.id"
            ><PlainCheckbox :checked="among.has(m.id)" @change="toggle(among, m.id)" />
            {{ m.isMe ? 'you' : m.name }}</label
          >
        </p>
        <p class="acts">
          <v-btn
            class="main"
            :disabled="busy || among.size === 0 || students.length === 0"
            @click="deal(markers.filter(m => among.has(m.id)).map(m => m.id))"
            >Assign {{ students.length }} records</v-btn
          ><v-btn v-if="students.some(s => s.markerId)" class="quiet" :disabled="busy" @click="deal([])"
            >Everyone marks all</v-btn
          >
        </p>
      </section>
      <section>
        <h3>A second marking</h3>
        <p class="muted">Made without seeing the first; then both markers see both and agree.</p>
        <ul>
          <li v-for="s in students" :key="s.id">
            <label
              ><PlainCheckbox
                :checked="twice.has(s.id) || secondOf(s.id) !== null"
                :disabled="secondOf(s.id) !== null && secondOf(s.id)!.state !== 'asked'"
                @change="toggle(twice, s.id)"
              />
              {{ s.name }}</label
            ><span class="hint">{{
              [markerName(s.markerId), secondWords(s.id)].filter(Boolean).join(' · ')
            }}</span>
          </li>
        </ul>
        <p class="acts">
          <label class="lab inline"
            >by
            <PickList v-model="second" class="in">
              <option value="">choose a marker</option>
              <option v-for="m in markers" :key="m.id" :value="m.id">{{ m.isMe ? 'you' : m.name }}</option>
            </PickList></label
          ><v-btn :disabled="busy || twice.size === 0 || second === ''" @click="ask">{{
            twice.size === 0 ? 'Ask' : `Ask for ${inWords(twice.size)}`
          }}</v-btn>
        </p>
      </section>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    </div>
  </ModalDialog>
</template>

<style scoped>
h3 {
  font-size: 0.875rem;
  letter-spacing: 0;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  margin: 8px 0;
}
label {
  display: inline-flex;
  gap: 7px;
  align-items: center;
}
ul {
  list-style: none;
  max-height: 30vh;
  overflow-y: auto;
  margin: 8px 0;
  border-top: 1px solid var(--line-soft);
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line-soft);
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.inline {
  display: inline-flex;
  font-weight: 400;
}
</style>
