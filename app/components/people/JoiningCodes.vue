<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import type { CodeWrite, JoiningCodeView } from '#shared/people/people'
import { plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import ProjectedCode from './ProjectedCode.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Joining codes: large enough to be read from a board, with how long and for how many they open. */
const props = defineProps<{
  codes: readonly JoiningCodeView[]
  sections: ReadonlyArray<{ readonly id: string; readonly title: string }>
}>()
const emit = defineEmits<{ make: [code: Omit<CodeWrite, 'key'>]; revoke: [code: JoiningCodeView] }>()
const { date } = useTimes()
const notices = useNotices()
const { host } = useRequestURL()
const projected = ref<string | null>(null)
const wish = reactive({
  role: 'student' as CodeWrite['role'],
  sectionId: null as string | null,
  days: 14,
  most: 30,
})
async function copyLink(code: JoiningCodeView) {
  await navigator.clipboard.writeText(`${location.origin}/join/${code.code}`)
  notices.say('The link is copied.')
}
const sectionOf = (c: JoiningCodeView) => props.sections.find(s => s.id === c.sectionId)?.title
</script>

<template>
  <section class="codes">
    <h2>Joining codes</h2>
    <p class="hint">Whoever has one comes in by themselves, at its address.</p>
    <ProjectedCode
      v-if="projected"
      :model-value="true"
      :code="projected"
      @update:model-value="projected = null"
    />
    <article v-for="c in codes" :key="c.id" :class="{ shut: !c.open }">
      <p class="code num">{{ c.code }}</p>
      <p class="address">{{ host }}/join/{{ c.code }}</p>
      <p class="hint">
        {{ c.role }}{{ sectionOf(c) ? `, ${sectionOf(c)}` : '' }} · {{ c.used }} of {{ c.most }} joined ·
        {{ c.open ? `until ${date(c.expiresAt)}` : 'closed' }}
      </p>
      <p class="acts">
        <TextButton v-if="c.open" @click="projected = c.code">Show it large</TextButton
        ><TextButton @click="copyLink(c)">Copy the link</TextButton
        ><TextButton @click="emit('revoke', c)">Delete</TextButton>
      </p>
    </article>
    <form @submit.prevent="emit('make', { ...wish })">
      <p class="sentence">
        A code for
        <LineInput
          v-model.number="wish.most"
          class="in short"
          type="number"
          min="1"
          max="5000"
          aria-label="How many people"
        />
        {{ plural(wish.most, 'person', 'people') }}, as
        <PickList v-model="wish.role" class="in" aria-label="Role">
          <option>student</option>
          <option>assistant</option>
          <option>observer</option></PickList
        ><template v-if="sections.length > 0">
          in
          <PickList v-model="wish.sectionId" class="in" aria-label="Section">
            <option :value="null">no section</option>
            <option v-for="s in sections" :key="s.id" :value="s.id">{{ s.title }}</option>
          </PickList></template
        >, good for
        <LineInput
          v-model.number="wish.days"
          class="in short"
          type="number"
          min="1"
          max="366"
          aria-label="Days"
        />
        days.
      </p>
      <v-btn type="submit">Make a code</v-btn>
    </form>
  </section>
</template>

<style scoped>
.codes {
  padding: 18px 20px 24px;
  display: grid;
  gap: 12px;
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
article {
  border-top: 1px solid var(--line-soft);
  padding-top: 10px;
  display: grid;
  gap: 3px;
}
.code {
  font: 600 1.75rem/1.1 var(--read);
  letter-spacing: 0.04em;
  color: var(--harbour-deep);
}
.address {
  font-size: 0.84375rem;
  overflow-wrap: anywhere;
  user-select: all;
}
.shut .code {
  color: var(--ink-3);
  text-decoration: line-through;
  text-decoration-thickness: 1px;
}
.acts {
  display: flex;
  gap: 16px;
  font-size: 0.84375rem;
}
form {
  border-top: 1px solid var(--line);
  padding-top: 10px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.sentence {
  font: 400 0.9375rem/2.1 var(--read);
}
.sentence .in {
  padding: 2px 6px;
  font: 600 0.875rem/1.3 var(--read);
  color: var(--harbour-deep);
}
.short {
  width: 4.2em;
}
</style>
