<script setup lang="ts">
import { KINDS } from '#core/contributing/kinds'
import { ATTACHABLE } from '#core/contributing/talkSettings'
import type { ActivityBody } from '#shared/planning/composer'
import ChoicePart from './ChoicePart.vue'
import NumberPart from './NumberPart.vue'

/** How people take part, as sentences: who opens threads, under which names, what comes with a post, how long it can be changed. */
const props = defineProps<{
  body: ActivityBody
  disabled: boolean
  contributions: number
  sections: number
}>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; light: [part: string | null] }>()
// a wiki has rooms of its own: groups, and a history in place of editing
const isWiki = computed(() => props.body.kind === 'wiki')
const reads = computed(() => KINDS[props.body.kind].readBy === 'class' && !isWiki.value)
const thing = computed(() => (props.body.kind === 'discussion' ? 'posted' : 'written'))
const groupings = computed(() => [
  { value: 'together', text: 'all together' },
  ...(props.sections > 1
    ? [
        {
          value: 'sections',
          text: 'each section by itself',
          note: 'You see all of them; nobody else reads another section.',
        },
      ]
    : []),
  ...(props.body.audience.kind === 'groups'
    ? [
        {
          value: 'groups',
          text: 'each group by itself',
          note: 'You see all of them; nobody else reads another group.',
        },
      ]
    : []),
])
const apart = computed(() =>
  groupings.value.some(c => c.value === props.body.apart) ? props.body.apart : 'together',
)
const TYPE_WORDS = {
  picture: 'pictures',
  paper: 'PDF',
  document: 'documents',
  recording: 'recordings',
} as const
const toggleType = (type: (typeof ATTACHABLE)[number]) => {
  const { attach } = props.body
  emit('change', {
    attach: {
      ...attach,
      types: attach.types.includes(type) ? attach.types.filter(t => t !== type) : [...attach.types, type],
    },
  })
}
</script>

<template>
  <div class="talk-lines">
    <p
      v-if="reads && (body.audience.kind === 'groups' || sections > 1 || body.apart !== 'together')"
      class="line"
    >
      People talk
      <ChoicePart
        label="Who talks with whom"
        :model-value="apart"
        :choices="groupings"
        :disabled="disabled"
        @update:model-value="emit('change', { apart: $event })"
      />.
    </p>
    <p v-if="body.kind === 'discussion'" class="line">
      Threads are opened by
      <ChoicePart
        label="Who opens threads"
        :model-value="body.threads"
        :choices="[
          { value: 'everyone', text: 'everyone', note: 'One scenario, under which each opens a thread.' },
          { value: 'staff', text: 'staff only', note: 'You put one or several questions; all answer them.' },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { threads: $event })"
      />; one replies
      <ChoicePart
        label="Replies"
        :model-value="body.replies"
        :choices="[
          { value: 'any', text: 'to anything' },
          { value: 'top', text: 'to the opening post only' },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { replies: $event })"
      />. Names are
      <ChoicePart
        label="Names"
        :model-value="body.namesHidden"
        :choices="[
          { value: false, text: 'shown' },
          {
            value: true,
            text: 'hidden from classmates',
            note: 'Each goes by another name in each thread. Staff always know who wrote.',
          },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { namesHidden: $event })"
      />.
    </p>
    <p v-if="body.kind === 'journal'" class="line">
      Entries are read by
      <ChoicePart
        label="Who reads entries"
        :model-value="body.opening"
        :choices="[
          { value: 'staff', text: 'staff only' },
          { value: 'author', text: 'staff, and by the class where the author opens one' },
          { value: 'class', text: 'the whole class', note: 'Also those already written.' },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { opening: $event })"
      />.
      <span v-if="body.opening === 'class' && contributions > 0" class="warn"
        >What was written in confidence so far becomes readable for the class, too.</span
      >
    </p>
    <p v-if="body.kind === 'blog'" class="line">
      It is
      <ChoicePart
        label="Whose blog"
        :model-value="body.layout"
        :choices="[
          { value: 'stream', text: 'one blog for the class' },
          { value: 'own', text: 'a blog for each student' },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { layout: $event })"
      />; it can be switched at any time, nothing moves but the view.
    </p>
    <p v-if="body.kind === 'blog' || body.kind === 'journal' || body.kind === 'lexicon'" class="line">
      {{ body.kind === 'lexicon' ? 'Terms' : 'Entries' }} are listed by
      <ChoicePart
        label="Listed by"
        :model-value="body.indexBy"
        :choices="[
          { value: 'week', text: 'week' },
          { value: 'month', text: 'month' },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { indexBy: $event })"
      />.
    </p>
    <p v-if="reads" class="line">
      What is {{ thing }} is shown
      <ChoicePart
        label="Shown"
        :model-value="body.approval"
        :choices="[
          { value: false, text: 'at once' },
          { value: true, text: 'when you approve it' },
        ]"
        :disabled="disabled"
        @update:model-value="emit('change', { approval: $event })"
      />.
    </p>
    <p class="line">
      <template v-if="isWiki">Comments can be withdrawn for</template
      ><template v-else
        >What is {{ thing }} can be edited for
        <NumberPart
          label="Minutes to change it"
          :model-value="body.editMinutes"
          :disabled="disabled"
          :max="100000"
          unit="minutes"
          :usual="[0, 30, 60, 1440]"
          @update:model-value="emit('change', { editMinutes: $event })"
          @opened="emit('light', $event ? 'edit' : null)"
        />
        minutes and withdrawn for</template
      >{{ ' '
      }}<NumberPart
        label="Minutes to withdraw it"
        :model-value="body.withdrawMinutes"
        :disabled="disabled"
        :max="100000"
        unit="minutes"
        :usual="[0, 30, 60, 1440]"
        @update:model-value="emit('change', { withdrawMinutes: $event })"
      />{{ isWiki ? ' minutes' : '' }}.
    </p>
    <p class="line">
      Up to
      <NumberPart
        label="How many files"
        :min="0"
        :max="20"
        :model-value="body.attach.most"
        :disabled="disabled"
        :usual="[0, 2, 4, 8]"
        @update:model-value="emit('change', { attach: { ...body.attach, most: $event } })"
      />
      files<template v-if="body.attach.most > 0">
        of up to
        <NumberPart
          label="Megabytes each"
          :min="1"
          :max="20"
          :model-value="body.attach.megabytes"
          :disabled="disabled"
          unit="MB"
          :usual="[5, 10, 20]"
          @update:model-value="emit('change', { attach: { ...body.attach, megabytes: $event } })"
        />
        MB</template
      >
      can come with it<template v-if="body.attach.most > 0"
        >:
        <span class="types"
          ><button
            v-for="t in ATTACHABLE"
            :key="t"
            type="button"
            class="chip"
            :class="{ on: body.attach.types.includes(t) }"
            :aria-pressed="body.attach.types.includes(t)"
            :disabled="disabled"
            @click="toggleType(t)"
          >
            {{ TYPE_WORDS[t] }}
          </button></span
        ></template
      ><template v-else>.</template>
    </p>
  </div>
</template>

<style scoped>
.line {
  font: 400 1.03125rem/2 var(--read);
}
.types {
  display: inline-flex;
  gap: 6px;
  flex-wrap: wrap;
}
.chip {
  font-family: var(--ui);
  line-height: 1.4;
}
.warn {
  display: block;
  font: 400 0.84375rem/1.5 var(--ui);
  color: var(--ember);
}
</style>
