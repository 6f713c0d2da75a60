<script setup lang="ts">
import { DUE_TASKS, type DueFailure } from '#shared/people/dueFailures'

/** Work that was due and could not be done, for who runs the installation: the code is what the log is searched by. */
defineProps<{ failures: readonly DueFailure[]; at: Intl.DateTimeFormat }>()
</script>

<template>
  <section v-if="failures.length > 0">
    <h2>Work that could not be done</h2>
    <p class="muted small">
      It is tried again by itself. What is refused because somebody has to settle something first stands at
      its activity, too.
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Work that could not be done">
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Seminar</th>
            <th scope="col">Reason</th>
            <th scope="col">Tries</th>
            <th scope="col">Since</th>
            <th scope="col">Next try</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in failures" :key="`${f.task} ${f.subjectId}`">
            <td>{{ DUE_TASKS[f.task] }}</td>
            <td>{{ f.seminar }}</td>
            <td>
              <code>{{ f.reason }}</code>
            </td>
            <td class="num">{{ f.tries }}</td>
            <td>{{ at.format(new Date(f.firstAt)) }}</td>
            <td>{{ at.format(new Date(f.nextAt)) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 26px;
  padding: 12px 16px 4px;
  background: var(--ember-soft);
  border-radius: var(--r);
}
h2 {
  font: 600 1.0625rem/1.35 var(--read);
}
.scroll {
  overflow-x: auto;
}
table {
  min-width: 44rem;
}
</style>
