<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import { readsAlong } from '#core/kinds'
import type { ActivityBody, AudienceBody, ComposerView } from '#shared/planning/composer'
import { plural } from '#core/language'
import { KIND_WORDS } from '~/kinds/words'
import { meantPeople } from '~/composables/planning/meantPeople'
import ChipButton from '~/components/controls/ChipButton.vue'

/** For whom it is: everyone, sections, groups of a plan, or named people, with what that comes to. */
const props = defineProps<{ body: ActivityBody; view: ComposerView; disabled: boolean }>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>] }>()
const audience = computed(() => props.body.audience)
const plan = computed(() =>
  audience.value.kind === 'groups'
    ? (props.view.groupPlans.find(p => p.id === (audience.value as { groupPlanId: string }).groupPlanId) ??
      null)
    : null,
)
const meant = computed(() => meantPeople(props.view, props.body))
const apart = computed(() => {
  const words = KIND_WORDS[props.body.kind]
  if (words.inGroups && audience.value.kind === 'groups') return words.inGroups
  if (!readsAlong(props.body.kind, props.body)) return words.together
  if (props.body.apart === 'groups' && audience.value.kind === 'groups') return ', each group by itself'
  if (props.body.apart === 'sections') return ', each section by itself'
  return words.together
})
const others = computed(() => props.view.seminars.filter(s => !props.body.jointSeminarIds.includes(s.id)))
const joined = computed(() => props.view.seminars.filter(s => props.body.jointSeminarIds.includes(s.id)))
const set = (next: AudienceBody) => emit('change', { audience: next })
const toggle = (ids: readonly string[], id: string) =>
  ids.includes(id) ? ids.filter(x => x !== id) : [...ids, id]
const MEANT = computed(
  () =>
    [
      ['everyone', 'everyone', () => set({ kind: 'everyone' }), true],
      [
        'sections',
        'sections',
        () => set({ kind: 'sections', sectionIds: props.view.sections.slice(0, 1).map(s => s.id) }),
        props.view.sections.length > 0,
      ],
      [
        'groups',
        'groups',
        () => set({ kind: 'groups', groupPlanId: props.view.groupPlans[0]!.id, groupIds: [] }),
        props.view.groupPlans.length > 0,
      ],
      [
        'people',
        'named people',
        () => set({ kind: 'people', enrolmentIds: [] }),
        props.view.people.length > 0,
      ],
    ] as const,
)
function addPerson(event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value && audience.value.kind === 'people')
    set({ kind: 'people', enrolmentIds: [...audience.value.enrolmentIds, select.value] })
  select.value = ''
}
function join(event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value) emit('change', { jointSeminarIds: [...props.body.jointSeminarIds, select.value] })
  select.value = ''
}
</script>

<template>
  <div class="audience">
    <p class="chips">
      <ChipButton
        v-for="[kind, label, choose, possible] in MEANT"
        :key="kind"
        :class="{ on: audience.kind === kind }"
        :aria-pressed="audience.kind === kind"
        :disabled="disabled || !possible"
        :title="possible ? undefined : 'There are none in this seminar yet'"
        @click="audience.kind !== kind && choose()"
      >
        {{ label }}
      </ChipButton>
      <span class="hint">{{ meant }} {{ plural(meant, 'student') }}{{ apart }}</span>
    </p>
    <p v-if="audience.kind === 'sections'" class="chips">
      <ChipButton
        v-for="s in view.sections"
        :key="s.id"
        :class="{ on: audience.sectionIds.includes(s.id) }"
        :disabled="disabled"
        @click="set({ kind: 'sections', sectionIds: toggle(audience.sectionIds, s.id) })"
      >
        {{ s.title }} · {{ s.people }}
      </ChipButton>
    </p>
    <template v-if="audience.kind === 'groups'">
      <p class="chips">
        <PickList
          class="in"
          :value="audience.groupPlanId"
          :disabled="disabled"
          aria-label="Group plan"
          @change="
            set({ kind: 'groups', groupPlanId: ($event.target as HTMLSelectElement).value, groupIds: [] })
          "
        >
          <option v-for="p in view.groupPlans" :key="p.id" :value="p.id">{{ p.title }}</option>
        </PickList>
        <ChipButton
          :class="{ on: audience.groupIds.length === 0 }"
          :disabled="disabled"
          @click="set({ ...audience, groupIds: [] })"
        >
          all its groups
        </ChipButton>
        <ChipButton
          v-for="g in plan?.groups ?? []"
          :key="g.id"
          :class="{ on: audience.groupIds.includes(g.id) }"
          :disabled="disabled"
          @click="set({ ...audience, groupIds: toggle(audience.groupIds, g.id) })"
        >
          {{ g.title }} · {{ g.memberIds.length }}
        </ChipButton>
      </p>
      <label class="tick"
        ><PlainCheckbox
          :checked="body.groupMark"
          :disabled="disabled"
          @change="emit('change', { groupMark: !body.groupMark })"
        />
        one mark for the whole group</label
      >
    </template>
    <p v-if="audience.kind === 'people'" class="chips">
      <ChipButton
        v-for="id in audience.enrolmentIds"
        :key="id"
        class="on"
        :disabled="disabled"
        :aria-label="`Remove ${view.people.find(p => p.id === id)?.name}`"
        @click="set({ kind: 'people', enrolmentIds: toggle(audience.enrolmentIds, id) })"
      >
        {{ view.people.find(p => p.id === id)?.name ?? 'somebody who left' }} ×
      </ChipButton>
      <PickList v-if="!disabled" class="in" aria-label="Add somebody" @change="addPerson">
        <option value="">add somebody …</option>
        <option
          v-for="p in view.people.filter(
            x => audience.kind === 'people' && !audience.enrolmentIds.includes(x.id),
          )"
          :key="p.id"
          :value="p.id"
        >
          {{ p.name }}
        </option>
      </PickList>
    </p>
    <p v-if="view.seminars.length > 0" class="chips">
      <span class="with">together with</span>
      <ChipButton
        v-for="s in joined"
        :key="s.id"
        class="on"
        :disabled="disabled"
        :aria-label="`No longer together with ${s.code}`"
        @click="emit('change', { jointSeminarIds: toggle(body.jointSeminarIds, s.id) })"
      >
        {{ s.code }} {{ s.title }} · {{ s.people }} ×
      </ChipButton>
      <PickList
        v-if="!disabled && others.length > 0"
        class="in"
        aria-label="Hold it together with another seminar"
        @change="join"
      >
        <option value="">{{ joined.length > 0 ? 'another seminar …' : 'no other seminar' }}</option>
        <option v-for="s in others" :key="s.id" :value="s.id">
          {{ s.code }} {{ s.title }} · {{ s.people }}
        </option>
      </PickList>
      <span v-if="joined.length > 0" class="hint">planned and marked here</span>
    </p>
  </div>
</template>

<style scoped>
.audience {
  display: grid;
  gap: 7px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 7px;
  align-items: center;
}
.chip:disabled {
  opacity: 0.6;
  cursor: default;
}
.hint {
  margin-left: 8px;
}
.with {
  font-size: 0.84375rem;
  color: var(--ink-2);
}
select.in {
  max-width: 20rem;
}
.tick {
  display: flex;
  gap: 7px;
  font-size: 0.84375rem;
}
</style>
