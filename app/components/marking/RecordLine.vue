<script setup lang="ts">
import type { RecordPiece } from './recordPiece'

/** A line of the record with what is cited in it; a hidden name keeps the name it stands for, so that it is cited whole. */
defineProps<{ pieces: readonly RecordPiece[] }>()
</script>

<template>
  <template v-for="(piece, k) in pieces" :key="k"
    ><mark v-if="piece.numbers.length > 0" class="cited"
      ><template v-for="(n, j) in piece.names" :key="j"
        ><span v-if="n.alias" :data-name="n.text">{{ n.alias }}</span
        ><template v-else>{{ n.text }}</template></template
      ></mark
    ><template v-for="(n, j) in piece.numbers.length > 0 ? [] : piece.names" :key="`p${j}`"
      ><span v-if="n.alias" :data-name="n.text">{{ n.alias }}</span
      ><template v-else>{{ n.text }}</template></template
    ><span v-for="number in piece.ends" :key="number" class="cite-number" data-skip>{{
      number
    }}</span></template
  >
</template>

<style scoped>
.cite-number {
  user-select: none;
}
</style>
