<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import { listed, plural } from '#core/language'
import type { ErasePreview } from '#shared/keeping/archive'

/** Where a given name stands by itself in what others wrote: staff tick where it means the person to be erased. */
const props = defineProps<{ preview: ErasePreview; givenName: string; name: string }>()
const pointing = defineModel<readonly string[]>({ required: true })
const rows = computed(() => {
  const keys = [...new Set(props.preview.places.map(p => p.key))]
  return keys.map(key => ({ key, places: props.preview.places.filter(p => p.key === key) }))
})
const shared = computed(() => props.preview.sharedWith)
const lead = computed(() => {
  const { count } = props.preview
  const places = `“${props.givenName}” stands by itself in ${count} other ${plural(count, 'place')}.`
  const verb = plural(shared.value.length, 'has', 'have')
  const others = shared.value.length > 0 ? ` ${listed(shared.value)} ${verb} the same first name.` : ''
  return `${places}${others} Tick where it means ${props.name}: there it goes, too.`
})
function toggle(key: string) {
  pointing.value = pointing.value.includes(key)
    ? pointing.value.filter(k => k !== key)
    : [...pointing.value, key]
}
</script>

<template>
  <fieldset v-if="rows.length > 0">
    <legend>{{ lead }}</legend>
    <ul>
      <li v-for="{ key, places } in rows" :key="key">
        <label>
          <PlainCheckbox :checked="pointing.includes(key)" @change="toggle(key)" />
          <span>
            <span v-for="(p, n) in places.slice(0, 3)" :key="n" class="place"
              >{{ p.before && `…${p.before}` }}<b>{{ p.exact }}</b
              >{{ p.after && `${p.after}…` }}</span
            >
            <span class="what">in {{ places[0]!.what }}</span>
          </span>
        </label>
      </li>
    </ul>
    <p v-if="preview.count > preview.places.length" class="what">
      These are the first {{ preview.places.length }}. In the others the first name stays.
    </p>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  line-height: 1.5;
  padding: 0 0 6px;
}
ul {
  list-style: none;
  max-height: 220px;
  overflow-y: auto;
  border: 1px solid var(--line);
  background: var(--sheet);
}
li + li {
  border-top: 1px solid var(--line);
}
label {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 8px 12px;
  cursor: pointer;
}
.place {
  display: block;
  font: 400 0.9375rem/1.45 var(--read);
}
.what {
  color: var(--ink-3);
  font-size: 0.8125rem;
}
</style>
