<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import { definedAs } from '#core/kinds/lexicon/definedAs'
import { sameTerm } from '#core/kinds/lexicon/termFinder'
import { useTermsStore } from '~/stores/terms'
import type { LexiconSettingsBody } from '#shared/kinds/lexicon/settings'
import type { TermDetail } from '#shared/kinds/lexicon/term'

/** What a term is besides its definition. */
const props = defineProps<{
  term: TermDetail | null
  settings: LexiconSettingsBody
  activityId: string
  /** The term that is being changed. */
  own?: string
}>()
const terms = useTermsStore()
/** The term this word is already, where the lexicon defines each once. */
const there = computed(() => {
  if (props.settings.duplicates !== 'refused') return null
  const known = (terms.view?.terms ?? [])
    .filter(t => t.activityId === props.activityId)
    .map(t => ({ id: t.id, term: t.forms[0]!, forms: t.forms.slice(1) }))
  return definedAs(props.term?.term ?? '', known, props.own ?? null)
})
const isForm = computed(
  () => there.value !== null && sameTerm(there.value.term) !== sameTerm(props.term!.term),
)
const emit = defineEmits<{ write: [term: TermDetail] }>()
const EMPTY: TermDetail = { term: '', forms: [], category: null, sources: '', whole: true }
const set = (part: Partial<TermDetail>) => emit('write', { ...EMPTY, ...props.term, ...part })
const text = (event: Event) => (event.target as HTMLInputElement).value
const formsOf = (said: string) =>
  said
    .split(/[,;|]/)
    .map(f => f.trim())
    .filter(Boolean)
    .slice(0, 20)
</script>

<template>
  <div class="term-fields">
    <LineInput
      class="term"
      :value="term?.term ?? ''"
      maxlength="100"
      aria-label="Term"
      placeholder="Term"
      @input="set({ term: text($event) })"
    />
    <p v-if="there" class="there" role="status">
      {{
        isForm
          ? `“${term?.term}” is a form of “${there.term}”, which is defined already.`
          : `“${there.term}” is defined already.`
      }}
      <NuxtLink :to="terms.addressOf(there.id)">Read it</NuxtLink>
    </p>
    <p class="row">
      <label class="grow"
        >also
        <LineInput
          class="in"
          :value="(term?.forms ?? []).join(', ')"
          placeholder="other forms, set apart by commas"
          aria-label="Other forms"
          @change="set({ forms: formsOf(text($event)) })"
      /></label>
      <label v-if="settings.categories.length > 0"
        >in
        <PickList
          class="in"
          :value="term?.category ?? ''"
          aria-label="Category"
          @change="set({ category: text($event) || null })"
        >
          <option value="">no category</option>
          <option v-for="c in settings.categories" :key="c" :value="c">{{ c }}</option>
        </PickList></label
      >
    </p>
    <p class="row">
      <label class="grow"
        >from
        <LineInput
          class="in"
          :value="term?.sources ?? ''"
          maxlength="1000"
          placeholder="a source, if there is one"
          aria-label="Sources"
          @input="set({ sources: text($event) })"
      /></label>
      <label class="tick"
        ><PlainCheckbox
          :checked="term ? !term.whole : false"
          @change="set({ whole: !($event.target as HTMLInputElement).checked })"
        />
        also inside longer words</label
      >
    </p>
  </div>
</template>

<style scoped>
.term-fields {
  padding: 8px 14px 6px;
  display: grid;
  gap: 6px;
  border-bottom: 1px solid var(--line-soft);
}
.term {
  border: 0;
  background: none;
  padding: 2px 0;
  font: 600 1.1875rem/1.35 var(--read);
  color: var(--ink);
  outline: none;
  width: 100%;
}
.term::placeholder {
  color: var(--ink-3);
}
.there {
  font-size: 0.8125rem;
  color: var(--ember);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  font-size: 0.8125rem;
  color: var(--ink-2);
  align-items: center;
}
.row label {
  display: flex;
  gap: 7px;
  align-items: center;
}
.row .in {
  padding: 3px 8px;
  font-size: 0.8125rem;
}
.grow {
  flex: 1;
  min-width: 14rem;
}
.grow .in {
  flex: 1;
}
</style>
