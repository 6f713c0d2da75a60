<script setup lang="ts">
import type { NoticeList } from '#shared/messaging/notices'
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** What one has been told, newest first. Looking at it is what makes it seen. */
const seminar = useSeminarStore()
const api = useApi()
const { dayTime } = useTimes()
const open = ref(false)
const list = shallowRef<NoticeList['notices'] | null>(null)
const problem = ref<string | null>(null)
const unseen = computed(() => seminar.shell?.unseen ?? 0)
watch(open, async is => {
  if (!is) return
  problem.value = null
  try {
    list.value = (
      await api.call(messagingEndpoints.readNotices, { params: { seminarId: seminar.shell!.id } })
    ).notices
    if (unseen.value > 0) {
      await api.call(messagingEndpoints.recordNoticesSeen, { params: { seminarId: seminar.shell!.id } })
      await seminar.load(seminar.shell!.id)
    }
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
})
const page = (id: string) => `/seminars/${seminar.shell!.id}/activities/${id}`
</script>

<template>
  <CardMenu v-model="open" label="Notices">
    <template #opener="{ opener }"
      ><PlainButton
        v-bind="opener"
        class="told"
        :class="{ some: unseen > 0 }"
        :aria-label="unseen > 0 ? `Notices, ${unseen} new` : 'Notices'"
      >
        Notices<b v-if="unseen > 0" class="num">{{ unseen }}</b>
      </PlainButton></template
    >
    <div class="list">
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p v-else-if="!list" class="hint">looking …</p>
      <p v-else-if="list.length === 0" class="hint">
        Nothing yet. When an activity opens or changes, it is said here.
      </p>
      <ul v-else>
        <li v-for="n in list" :key="n.id" :class="{ fresh: !n.seen }">
          <NuxtLink v-if="n.activityId" :to="page(n.activityId)">{{ n.text }}</NuxtLink><b v-else>{{
            n.text
          }}</b>
          <p v-if="n.detail" class="detail">{{ n.detail }}</p>
          <time class="hint num">{{ dayTime(n.madeAt) }}</time>
        </li>
      </ul>
    </div></CardMenu
  >
</template>

<style scoped>
.told {
  border: 0;
  background: none;
  color: var(--ink-2);
  font-size: 0.8125rem;
  cursor: pointer;
  padding: 6px 2px;
  white-space: nowrap;
}
.told:hover {
  color: var(--ink);
}
.told b {
  background: var(--ember);
  color: #fff;
  border-radius: 999px;
  padding: 1px 6px;
  font-size: 0.6875rem;
  margin-left: 5px;
}
.list {
  width: min(380px, 92vw);
  max-height: 70vh;
  overflow: auto;
  padding: 10px 16px;
}
ul {
  list-style: none;
}
li {
  padding: 9px 0;
  border-bottom: 1px solid var(--line-soft);
  display: grid;
  gap: 2px;
}
li:last-child {
  border-bottom: 0;
}
li a,
li b {
  font: 600 0.90625rem/1.35 var(--read);
  color: var(--ink);
  text-decoration-color: transparent;
}
li a:hover {
  text-decoration-color: currentcolor;
}
.fresh {
  box-shadow: inset 3px 0 0 var(--ember);
  padding-left: 11px;
}
.detail {
  white-space: pre-line;
  color: var(--ink-2);
  font-size: 0.8125rem;
}
</style>
