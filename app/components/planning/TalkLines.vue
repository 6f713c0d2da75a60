<script setup lang="ts">
import { KINDS } from '#core/kinds'
import { capital } from '#core/language'
import { ATTACHABLE } from '#core/contributing/talkSettings'
import type { ActivityBody } from '#shared/planning/composer'
import ChoicePart from './ChoicePart.vue'
import NumberPart from './NumberPart.vue'
import ChipButton from '~/components/controls/ChipButton.vue'

/** How people take part, as sentences: who opens threads, under which names, what comes with a post, how long it can be changed. */
const props = defineProps<{
  body: ActivityBody
  disabled: boolean
  sections: number
}>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; light: [part: string | null] }>()
// a wiki has rooms of its own: groups, and a history in place of editing
const kind = computed(() => KINDS[props.body.kind])
const isWiki = computed(() => kind.value.standsIn === 'pages')
const reads = computed(() => kind.value.readBy === 'class' && !isWiki.value)
const thing = computed(() => (kind.value.entryType === 'post' ? 'posted' : 'written'))
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
    <p v-if="kind.ownTalk.includes('indexBy')" class="line">
      {{ capital(kind.entryWord[1]) }} are listed by
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
          ><ChipButton
            v-for="t in ATTACHABLE"
            :key="t"
            :class="{ on: body.attach.types.includes(t) }"
            :aria-pressed="body.attach.types.includes(t)"
            :disabled="disabled"
            @click="toggleType(t)"
          >
            {{ TYPE_WORDS[t] }}
          </ChipButton></span
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
</style>
