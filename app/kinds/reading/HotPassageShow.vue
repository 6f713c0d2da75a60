<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import ProseText from '~/components/contributing/ProseText.vue'
import type { MarginNote } from '~/kinds/reading/useMargin'
import TextButton from '~/components/controls/TextButton.vue'

/** One passage and what was said about it, large, to show in class. */
defineProps<{
  where: string
  at: number
  of: number
  quote: { readonly before: string; readonly exact: string; readonly after: string }
  notes: readonly MarginNote[]
  named: boolean
}>()
const emit = defineEmits<{ turn: [by: number]; close: [] }>()
</script>

<template>
  <section class="large" role="dialog" aria-modal="true" aria-label="To show in class">
    <p class="where">
      {{ where }} <span class="grow" />{{ ' ' }}<span class="num">{{ at }} of {{ of }}</span
      >{{ ' ' }}<TextButton @click="emit('turn', -1)">before <KeyHint of="k" /></TextButton>{{ ' '
      }}<TextButton @click="emit('turn', 1)">next <KeyHint of="j" /></TextButton>{{ ' '
      }}<TextButton @click="emit('close')">back <kbd>Esc</kbd></TextButton>
    </p>
    <blockquote>
      <span>… {{ quote.before }}</span
      ><mark>{{ quote.exact }}</mark
      ><span>{{ quote.after }} …</span>
    </blockquote>
    <div class="voices">
      <div v-for="m in notes" :key="m.c.id">
        <p class="by">
          {{ named ? m.c.author.name : ''
          }}<i v-if="m.c.note.kind === 'question'"> {{ named ? 'asks' : 'a question' }}</i>
        </p>
        <ProseText v-if="m.c.html" :html="m.c.html" />
        <div v-for="r in m.replies.filter(x => !x.withdrawn).slice(0, 2)" :key="r.id" class="reply">
          <span v-if="named" class="by">{{ r.author.name }}</span>{{ ' '
          }}<ProseText v-if="r.html" class="inline" :html="r.html" />
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
blockquote {
  font: 400 1.125rem/1.5 var(--read);
  color: var(--ink-3);
}
blockquote mark {
  background: none;
  color: var(--ink);
  border-bottom: 3px solid var(--k-reading);
}
.by {
  font: 500 0.8125rem/1.4 var(--ui);
  color: var(--ink-2);
  margin-right: 4px;
}
.by i {
  font: italic 500 0.875rem/1 var(--read);
  color: var(--k-reading);
}
.inline,
.inline :deep(p) {
  display: inline;
}
.large {
  position: fixed;
  inset: 0;
  z-index: 60;
  background: var(--paper);
  padding: 28px 6vw 40px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 28px;
}
.where {
  display: flex;
  gap: 20px;
  align-items: baseline;
  font-size: 0.9375rem;
  color: var(--ink-2);
}
.grow {
  flex: 1;
}
.large blockquote {
  font-size: clamp(1.5rem, 3.4vw, 3rem);
  line-height: 1.35;
  text-wrap: pretty;
}
.large mark {
  border-bottom-width: 6px;
}
.voices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(22rem, 1fr));
  gap: 22px 44px;
}
.voices > div {
  border-top: 1px solid var(--spine);
  padding-top: 10px;
}
.voices :deep(.prose) {
  font-size: clamp(1.125rem, 1.6vw, 1.5rem);
  line-height: 1.4;
}
.reply {
  margin: 8px 0 0 2px;
  padding-left: 14px;
  border-left: 2px solid var(--spine);
  color: var(--ink-2);
}
.voices .reply :deep(.prose) {
  font-size: 1.0625rem;
}
@media (max-width: 760px) {
  .voices {
    grid-template-columns: 1fr;
  }
}
</style>
