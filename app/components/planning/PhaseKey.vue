<script setup lang="ts">
/** How the phases of a bar are drawn. */
const props = defineProps<{ withDrafts: boolean }>()
const drawn = computed(() => ['write', 'respond', 'review', 'mark', ...(props.withDrafts ? ['draft'] : [])])
</script>

<template>
  <dl aria-label="How phases are drawn">
    <div v-for="phase in drawn" :key="phase">
      <dt :class="phase" />
      <dd>{{ phase }}</dd>
    </div>
  </dl>
</template>

<style scoped>
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin: 0 0 0 auto;
  font-size: 0.75rem;
  color: var(--ink-2);
}
div {
  display: flex;
  align-items: center;
  gap: 7px;
}
dd {
  margin: 0;
}
dt {
  width: 26px;
  height: 11px;
  border-radius: 3px;
  --c: var(--ink-2);
}
dt.write {
  background: var(--c);
}
dt.respond {
  background: repeating-linear-gradient(135deg, var(--c) 0 1.7px, transparent 1.7px 5.4px);
  box-shadow: inset 0 0 0 1px var(--c);
}
dt.review {
  background: radial-gradient(circle at 3px 3px, var(--c) 1.35px, transparent 1.6px) 0 0/6px 6px;
  box-shadow: inset 0 0 0 1px var(--c);
}
dt.mark {
  box-shadow: inset 0 0 0 1.5px var(--c);
}
dt.draft {
  border: 1.5px dashed var(--c);
}
@media (forced-colors: active) {
  dt {
    --c: CanvasText;
    forced-color-adjust: none;
  }
}
</style>
