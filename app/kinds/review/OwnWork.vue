<script setup lang="ts">
import type { ActivityView } from '#shared/contributing/activity'
import type { FoundNameView, OwnReviews } from '#shared/kinds/review/review'
import { useTalkDesk } from '~/composables/contributing/useTalkDesk'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useNotices } from '~/stores/notices'
import { useThreadStore } from '~/stores/thread'
import AttachmentList from '~/components/contributing/AttachmentList.vue'
import EditBox from '~/components/contributing/EditBox.vue'
import WriteBox from '~/components/contributing/WriteBox.vue'
import NamesFoundPanel from './NamesFoundPanel.vue'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** One's own work: written and handed in, or as it went in. */
const props = defineProps<{ activity: ActivityView; own: OwnReviews }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const store = useThreadStore()
const { dayTime, now } = useTimes()
const { desk } = useTalkDesk(async () => {})
const work = computed(
  () => store.whole.find(c => c.author.isMe && c.type === 'entry' && !c.withdrawn) ?? null,
)
const takenBack = computed(() =>
  work.value ? null : (store.whole.find(c => c.author.isMe && c.type === 'entry' && c.withdrawn) ?? null),
)
const open = ref(false)
const editing = ref(false)
const minWords = computed(() => {
  const r = props.activity.expectations.map(e => e.rule).find(x => x.kind === 'entries')
  return r && 'minWords' in r ? r.minWords : 1
})
const methods = computed(() => props.own.handIn.ways)
const attach = computed(() =>
  methods.value.includes('file')
    ? {
        ...props.activity.talk.attach,
        types: props.activity.talk.attach.types.filter(t => t !== 'recording'),
      }
    : null,
)
const WAY_WORDS = {
  text: 'write it here',
  file: 'add it as a file',
  link: 'link to it',
  paper: 'hand it over on paper',
}
const how = computed(() => methods.value.map(w => WAY_WORDS[w]).join(' or '))
const late = computed(() => props.own.writeEndsAt !== null && new Date(props.own.writeEndsAt) < now.value)

// names are looked for before it goes in; what is found, its writer decides about
const found = shallowRef<readonly FoundNameView[]>([])
const notSearched = shallowRef<readonly string[]>([])
let decide: ((goOn: boolean) => void) | null = null
async function check(text: string, fileIds: readonly string[]): Promise<boolean> {
  const answer = await api.call(reviewEndpoints.findNamesInWork, {
    params: { activityId: props.activity.id },
    body: { text, fileIds },
  })
  if (answer.found.length + answer.notSearched.length === 0) return true
  found.value = answer.found
  notSearched.value = answer.notSearched
  return new Promise(resolve => {
    decide = goOn => {
      found.value = []
      notSearched.value = []
      resolve(goOn)
    }
  })
}
async function handedIn() {
  await store.refresh()
  emit('changed')
  notices.say('Handed in. Readers get it without your name.', {
    label: 'Withdraw',
    run: () => takeBack(),
  })
}
async function takeBack() {
  if (!work.value) return
  const { id } = work.value
  try {
    await store.withdraw(id, true)
    emit('changed')
    notices.say('Withdrawn. Your text is kept.', { label: 'Hand it in again', run: () => again(id) })
  } catch (error) {
    notices.warn(error)
  }
}
async function again(id: string) {
  try {
    await store.withdraw(id, false)
    emit('changed')
  } catch (error) {
    notices.warn(error)
  }
}
function edited() {
  editing.value = false
  notices.say('Changed. Readers get it as it is now.')
}
</script>

<template>
  <section class="own" aria-label="Your own work">
    <h2>
      <i>1</i> Your own
      <span v-if="own.writeEndsAt">{{ work ? 'in' : `until ${dayTime(own.writeEndsAt)}` }}</span>
    </h2>
    <p v-if="own.group" class="hint">
      One hand-in for {{ own.group.title }}: {{ own.group.members.join(', ') }}.<template
        v-if="own.group.handedInBy && !work"
      >
        {{ own.group.handedInBy }} has handed in for all of you.</template
      >
    </p>
    <template v-if="work">
      <EditBox v-if="editing" :contribution="work" titled @done="edited" @away="editing = false" />
      <div v-else class="handed">
        <p class="meta">
          <b>{{ work.title ?? 'Your work' }}</b> · handed in {{ dayTime(work.shownAt) }} ·
          {{ own.handIn.onPaper ? 'on paper' : `${work.words} words`
          }}<template v-if="own.ownCalled">
            · readers call it <b>{{ own.ownCalled }}</b></template
          >
        </p>
        <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
        <div v-show="open" class="prose" dir="auto" v-html="work.html ?? ''" />
        <AttachmentList
          v-if="work.files.length > 0"
          :files="work.files"
          :html="work.html ?? ''"
          may-transcribe
        />
        <p class="acts">
          <TextButton
            v-if="work.words > 0 && !own.handIn.onPaper"
            :aria-expanded="open"
            @click="open = !open"
          >
            {{ open ? 'fold it' : 'read it' }}</TextButton><template
            v-if="work.changeUntil && !own.handIn.onPaper"
            ><TextButton @click="editing = true">edit</TextButton
            ><TextButton @click="takeBack">withdraw</TextButton
            ><span class="hint">until {{ dayTime(work.changeUntil) }}</span></template
          >
        </p>
      </div>
    </template>
    <template v-else-if="own.canHandIn && desk.mayWrite">
      <p class="hint">You can {{ how }}. Leave your name out of it: readers do not get it.</p>
      <p v-if="takenBack" class="hint">
        You have withdrawn what you had handed in.
        <TextButton @click="again(takenBack.id)">Hand it in again</TextButton>
      </p>
      <p v-if="late" class="late">
        Hand-in has ended. What you hand in now counts as late, and is assigned to readers as soon as that can
        be done.
      </p>
      <WriteBox
        :target="{ activityId: activity.id, parentId: null }"
        label="Your work"
        :min-words="minWords"
        :stored="store.draftAt(null)"
        :autofocus="false"
        :attach="attach"
        titled
        verb="Hand it in"
        :before="check"
        @posted="handedIn"
      />
      <NamesFoundPanel
        v-if="found.length + notSearched.length > 0"
        :found="found"
        :not-searched="notSearched"
        what="your work"
        verb="Hand it in"
        @go-on="decide?.(true)"
        @back="decide?.(false)"
      />
    </template>
    <p v-else-if="!own.group?.handedInBy" class="hint">
      {{
        own.handIn.late === 'refused'
          ? 'Hand-in has ended, and nothing of yours is in.'
          : 'Nothing of yours is in.'
      }}
    </p>
  </section>
</template>

<style scoped>
.handed {
  border-left: 3px solid var(--k-review);
  padding: 2px 0 2px 14px;
}
.meta {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.meta b {
  color: var(--ink);
  font-weight: 600;
}
.prose {
  margin: 8px 0;
  max-width: 44em;
}
.acts {
  display: flex;
  gap: 4px 14px;
  flex-wrap: wrap;
  font-size: 0.8125rem;
  margin-top: 4px;
}
.late {
  color: var(--ember);
  margin: 4px 0 8px;
}
.hint {
  margin-bottom: 8px;
}
</style>
