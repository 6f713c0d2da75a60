<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import LineInput from '~/components/controls/LineInput.vue'
import type { NoteDetail } from '#shared/kinds/reading/reading'
import type { DraftView } from '#shared/contributing/thread'
import { inWords, plural } from '#core/language'
import WriteBox from '~/components/contributing/WriteBox.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** The text has parted under the chosen words and asks what kind of note this is; then the note is written there. */
const props = defineProps<{
  activityId: string
  note: NoteDetail
  kind: NoteDetail['kind'] | null
  already: number
  mayWrite: boolean
  minWords: (kind: NoteDetail['kind']) => number
  stored: DraftView | null
  draftKey: string
}>()
const emit = defineEmits<{
  kind: [kind: NoteDetail['kind']]
  posted: [id: string, state: 'shown' | 'awaitingApproval' | 'scheduled']
  away: []
  target: []
}>()
const tags = ref(props.stored?.note?.tags.join(', ') ?? '')
const whole = computed<NoteDetail>(() => ({
  ...props.note,
  kind: props.kind ?? 'note',
  tags: [
    ...new Set(
      tags.value
        .split(',')
        .map(t => t.trim().replace(/^#/, '').slice(0, 40))
        .filter(Boolean),
    ),
  ].slice(0, 8),
}))
const label = computed(
  () =>
    ({ note: 'Your note', question: 'Your question', link: 'Why this leads there' })[props.kind ?? 'note'],
)
const sendVerb = computed(() => {
  if (props.kind === 'question') return 'Ask'
  if (props.kind === 'link') return 'Link them'
  return 'Post note'
})
</script>

<template>
  <div class="slip" role="group" aria-label="The chosen words" @click.stop @mouseup.stop>
    <div v-if="!kind" class="kinds">
      <template v-if="mayWrite">
        <PlainButton @click="emit('kind', 'note')">Note<KeyHint of="n" /></PlainButton><span>·</span
        ><PlainButton @click="emit('kind', 'question')">Question<KeyHint of="q" /></PlainButton><span>·</span
        ><PlainButton @click="emit('kind', 'link')">Link to another passage<KeyHint of="l" /></PlainButton>
      </template>
      <em>{{
        already === 0
          ? 'nobody has noted these words'
          : `${inWords(already)} ${plural(already, 'note')} on these words`
      }}</em>
    </div>
    <template v-else>
      <p v-if="kind === 'link'" class="to">
        <template v-if="note.to"
          >leads to “{{
            note.to.passage.exact.length > 90
              ? `${note.to.passage.exact.slice(0, 88)} …`
              : note.to.passage.exact
          }}” <TextButton @click="emit('target')">another</TextButton></template
        ><b v-else>Now choose the passage it leads to, anywhere in the text.</b>
      </p>
      <WriteBox
        :target="{ activityId, parentId: null, slot: draftKey }"
        :label="label"
        :min-words="minWords(kind)"
        :stored="stored"
        :note="whole"
        :attach="null"
        closable
        :verb="sendVerb"
        @posted="(id, state) => emit('posted', id, state)"
        @away="emit('away')"
      />
      <p class="tags">
        <label
          >Tags
          <LineInput
            v-model="tags"
            class="in"
            maxlength="200"
            placeholder="measures, women"
            aria-label="Tags, with commas between them"
        /></label>
      </p>
    </template>
  </div>
</template>

<style scoped>
.slip {
  background: var(--harbour-soft);
  color: var(--harbour-deep);
  border-left: 4px solid var(--harbour);
  font: 400 0.84375rem/1.4 var(--ui);
  white-space: normal;
  text-align: left;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  min-height: 36px;
  padding: 4px 18px 4px calc(var(--gutter, 40px) - 4px);
  gap: 2px 0;
}
.kinds button {
  background: none;
  border: 0;
  font: 600 0.84375rem/1 var(--ui);
  color: inherit;
  cursor: pointer;
  padding: 6px 0;
}
.kinds kbd {
  margin-left: 6px;
}
.kinds span {
  padding: 0 13px;
  color: var(--ink-3);
}
.kinds em {
  margin-left: auto;
  padding-left: 14px;
  font-style: normal;
  font-weight: 500;
  font-size: 0.78125rem;
  color: var(--ink-2);
}
.slip :deep(.box) {
  margin: 10px 18px 4px calc(var(--gutter, 40px) - 4px);
}
.to {
  padding: 8px 18px 0 calc(var(--gutter, 40px) - 4px);
  font: italic 400 0.875rem/1.4 var(--read);
}
.to b {
  font: 650 0.84375rem/1.4 var(--ui);
}
.tags {
  padding: 2px 18px 9px calc(var(--gutter, 40px) - 4px);
  font-size: 0.78125rem;
}
.tags .in {
  padding: 2px 8px;
  font-size: 0.78125rem;
  width: 15rem;
  margin-left: 6px;
}
@media (max-width: 760px) {
  .kinds em {
    margin-left: 0;
    width: 100%;
    padding-left: 0;
  }
  .slip :deep(.box) {
    margin: 8px 8px 4px;
  }
}
</style>
