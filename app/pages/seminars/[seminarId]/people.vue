<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import type { PersonView, RosterAnswer } from '#shared/people/people'
import ErasePerson from '~/components/people/ErasePerson.vue'
import JoiningCodes from '~/components/people/JoiningCodes.vue'
import PersonDisc from '~/components/people/PersonDisc.vue'
import PeopleTabs from '~/components/people/PeopleTabs.vue'
import PersonForm from '~/components/people/PersonForm.vue'
import RosterDialog from '~/components/people/RosterDialog.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { capital, inWords, plural } from '#core/language'
import { ROLE_ORDER, ROLE_WORDS } from '~/composables/people/roleWords'
import { usePeopleActs } from '~/composables/people/usePeopleActs'
import { importedSentence } from '~/composables/people/importedSentence'
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import * as peopleEndpoints from '#shared/people/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'People' })
const route = useRoute()
const params = { seminarId: String(route.params.seminarId) }
const api = useApi()
const notices = useNotices()
const { date } = useTimes()
const { data, error, refresh } = await useAsyncData(`people-${route.params.seminarId}`, () =>
  api.call(peopleEndpoints.readPeople, { params }),
)
const { change, invite, makeCode, revoke } = usePeopleActs(params.seminarId, refresh, () => chosen.clear())
const words = ref('')
const showing = ref<'here' | 'withdrawn'>('here')
const keeping = ref<PersonView | null>(null)
const adding = ref(false)
const importing = ref(false)
const chosen = reactive(new Set<string>())
const here = computed(() => (data.value?.people ?? []).filter(p => p.state === 'active'))
const withdrawn = computed(() => (data.value?.people ?? []).filter(p => p.state === 'withdrawn'))
const shown = computed(() =>
  (showing.value === 'here' ? here.value : withdrawn.value).filter(p =>
    `${p.name} ${p.email} ${p.studentNumber ?? ''}`.toLowerCase().includes(words.value.trim().toLowerCase()),
  ),
)
const byRole = computed(() =>
  ROLE_ORDER.map(role => ({ role, people: shown.value.filter(p => p.role === role) })).filter(
    g => g.people.length > 0,
  ),
)
const notIn = computed(() => here.value.filter(p => !p.canSignIn && !p.invitedAt))
const students = computed(() => here.value.filter(p => p.role === 'student'))
const sentence = computed(() => {
  const n = students.value.length
  const per = (data.value?.sections ?? []).map(
    s => `${students.value.filter(p => p.sectionId === s.id).length} in ${s.title}`,
  )
  return `${n} ${plural(n, 'student')}${per.length > 0 ? `: ${per.join(', ')}` : ''}`
})

const sectionTitle = (id: string | null) => data.value?.sections.find(s => s.id === id)?.title ?? 'no section'
/** Changes what a list says; the list goes back to what is so when the change is refused. */
async function choose(event: Event, before: string, act: (chosen: string) => Promise<boolean>) {
  const list = event.target as HTMLSelectElement // its own event
  if (!(await act(list.value))) list.value = before
}
const place = (p: PersonView, event: Event) =>
  choose(event, p.sectionId ?? '', chosenId => {
    const sectionId = chosenId || null
    return change(p, { sectionId }, `${p.givenName} is in ${sectionTitle(sectionId)} now.`)
  })
const appoint = (p: PersonView, event: Event) =>
  choose(event, p.role, chosenRole => {
    const role = chosenRole as PersonView['role'] // the list holds nothing else
    return change(p, { role }, `${p.givenName} is ${role} now.`)
  })
function imported(answer: RosterAnswer) {
  void refresh()
  notices.say(importedSentence(answer))
}
const toggle = (id: string) => {
  if (!chosen.delete(id)) chosen.add(id)
}
function sayErased(name: string) {
  keeping.value = null
  void refresh()
  notices.say(`Erased. What they did stands under “${name}” now.`)
}
function signInWords(p: PersonView) {
  if (p.canSignIn) return `${p.contributions} ${plural(p.contributions, 'contribution')}`
  if (p.invitedAt) return `invited ${date(p.invitedAt)}`
  return 'not invited yet'
}
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <div v-else class="people" :class="{ lone: !data.mayManage }">
    <main class="leaf">
      <PeopleTabs />
      <div class="leaf-head">
        <p class="muted">{{ sentence }}</p>
        <span class="grow" />
        <label
          ><span class="visually-hidden">Find somebody</span
          ><LineInput v-model="words" class="in" type="search" placeholder="name, address or number"
        /></label>
        <template v-if="data.mayManage"
          ><v-btn @click="importing = true">Import a roster …</v-btn
          ><v-btn class="main" @click="adding = !adding">Add somebody</v-btn></template
        >
      </div>
      <PersonForm
        v-if="adding"
        :seminar-id="String(route.params.seminarId)"
        :sections="data.sections"
        @added="refresh()"
        @close="adding = false"
      />
      <p v-if="data.mayManage && notIn.length > 0 && showing === 'here'" class="say">
        {{ capital(inWords(notIn.length)) }} {{ plural(notIn.length, 'person has', 'people have') }} no way in
        yet.
        <TextButton @click="invite(notIn.map(p => p.id))">
          Invite {{ notIn.length === 1 ? 'them' : 'them all' }} by mail
        </TextButton>
      </p>
      <p v-if="chosen.size > 0" class="say">
        {{ capital(inWords(chosen.size)) }} chosen.
        <TextButton @click="invite([...chosen])">Send an invitation</TextButton>{{ ' '
        }}<TextButton @click="chosen.clear()">cancel</TextButton>
      </p>
      <p v-if="students.length === 0 && showing === 'here'" class="invite">
        Nobody takes part yet. Import the college's roster, add people by hand, or make a joining code and
        write it on the board.
      </p>
      <table v-if="shown.length > 0" class="rows">
        <template v-for="group in byRole" :key="group.role">
          <thead>
            <tr>
              <th colspan="6">
                {{ ROLE_WORDS[group.role] }} <span class="num">{{ group.people.length }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in group.people" :key="p.id">
              <td>
                <div class="who">
                  <PlainCheckbox
                    v-if="data.mayManage"
                    :checked="chosen.has(p.id)"
                    :aria-label="`Choose ${p.name}`"
                    @change="toggle(p.id)"
                  /><PersonDisc :initials="p.initials" /><b>{{ p.name }}</b
                  ><span v-if="p.isMe" class="hint">you</span>
                </div>
              </td>
              <td class="mail">{{ p.email }}</td>
              <td>
                <PickList
                  v-if="data.mayManage && data.sections.length > 0 && p.state === 'active'"
                  class="in bare"
                  :value="p.sectionId ?? ''"
                  :aria-label="`Section of ${p.name}`"
                  @change="place(p, $event)"
                >
                  <option value="">no section</option>
                  <option v-for="s in data.sections" :key="s.id" :value="s.id">
                    {{ s.title }}
                  </option></PickList
                ><template v-else>{{ p.sectionId ? sectionTitle(p.sectionId) : '' }}</template>
              </td>
              <td>
                <PickList
                  v-if="data.mayManage && p.state === 'active'"
                  class="in bare"
                  :value="p.role"
                  :aria-label="`Role of ${p.name}`"
                  @change="appoint(p, $event)"
                >
                  <option v-for="r in ROLE_ORDER" :key="r">{{ r }}</option></PickList
                ><template v-else>{{ p.role }}</template>
              </td>
              <td class="hint state">
                {{ signInWords(p) }}
              </td>
              <td class="act">
                <template v-if="data.mayManage && !p.isMe"
                  ><TextButton
                    v-if="p.role === 'student'"
                    :aria-label="`Data: what is kept of ${p.name}`"
                    @click="keeping = p"
                  >
                    Data</TextButton
                  ><TextButton
                    v-if="p.state === 'active'"
                    @click="change(p, { state: 'withdrawn' }, `${p.name} is withdrawn. Work and marks stay.`)"
                  >
                    Withdraw</TextButton
                  ><TextButton v-else @click="change(p, { state: 'active' }, `${p.name} is back.`)">
                    Restore
                  </TextButton></template
                >
              </td>
            </tr>
          </tbody>
        </template>
      </table>
      <p v-else-if="words" class="invite">Nobody is called “{{ words }}”.</p>
      <p v-if="withdrawn.length > 0 || showing === 'withdrawn'" class="small">
        <TextButton @click="showing = showing === 'here' ? 'withdrawn' : 'here'">
          {{
            showing === 'here'
              ? `Show the ${inWords(withdrawn.length)} withdrawn`
              : 'Show everyone who is here'
          }}
        </TextButton>
      </p>
    </main>
    <aside v-if="data.mayManage">
      <JoiningCodes :codes="data.codes" :sections="data.sections" @make="makeCode" @revoke="revoke" />
    </aside>
    <ErasePerson
      :person="keeping"
      :seminar-id="String(route.params.seminarId)"
      @close="keeping = null"
      @erased="sayErased"
    />
    <RosterDialog v-model="importing" :seminar-id="String(route.params.seminarId)" @imported="imported" />
  </div>
</template>

<style scoped>
.people {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  flex: 1;
  min-height: 0;
}
.people.lone {
  grid-template-columns: minmax(0, 1fr);
}
main {
  overflow: auto;
  margin: 0;
  max-width: none;
}
aside {
  border-left: 1px solid var(--line);
  background: var(--sheet);
  overflow: auto;
}
.who {
  display: flex;
  align-items: center;
  gap: 9px;
}
.who b {
  font-weight: 600;
}
.who :deep(.disc) {
  width: 24px;
  height: 24px;
  line-height: 24px;
  font-size: 0.625rem;
}
tbody td {
  padding-top: 4px;
  padding-bottom: 4px;
  vertical-align: middle;
}
.mail {
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
.bare {
  border-color: transparent;
  background-color: transparent;
  padding: 2px 4px;
  font-size: 0.84375rem;
}
.bare:hover,
.bare:focus-visible {
  border-color: var(--line);
  background-color: var(--sheet);
}
.state {
  white-space: nowrap;
}
.act {
  text-align: right;
  white-space: nowrap;
}
.act .link + .link {
  margin-left: 14px;
}
th {
  padding-top: 14px;
  color: var(--ink-2);
}
th span {
  color: var(--ink-3);
  margin-left: 4px;
}
.say {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 8px 12px;
  margin-bottom: 8px;
}
@media (max-width: 1000px) {
  .people {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
  main {
    overflow-x: auto;
  }
}
@media (max-width: 700px) {
  .rows,
  .rows thead,
  .rows tbody {
    display: block;
  }
  .rows tr {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 10px;
    padding: 6px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  .rows td {
    border: 0;
    padding: 1px 0;
  }
  .rows td:first-child,
  .mail {
    flex: 1 0 100%;
  }
  .mail,
  .rows td:nth-child(3) {
    padding-left: 2px;
  }
  .act {
    margin-left: auto;
  }
}
</style>
