<script setup lang="ts">
import PlainRadio from '~/components/controls/PlainRadio.vue'
import { addressOf } from '#shared/http/endpoint'
import { useAppearance, type Appearance } from '~/composables/shell/useAppearance'
import { NOTICE_TIMES, useNoticeTime } from '~/composables/shell/useNoticeTime'
import { useSeminarZone } from '~/composables/planning/useSeminarZone'
import { useSeminarStore } from '~/stores/seminar'
import { useSessionStore } from '~/stores/session'
import NoticeMenu from './NoticeMenu.vue'
import SignOut from './SignOut.vue'
import * as keepingEndpoints from '#shared/keeping/endpoints'
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

const emit = defineEmits<{ find: []; keys: []; eye: [] }>()
const seminar = useSeminarStore()
const session = useSessionStore()
const { chosen, choose } = useAppearance()
const noticeTime = useNoticeTime()
const zone = useSeminarZone()
const base = computed(() => `/seminars/${seminar.shell?.id}`)
interface Link {
  readonly to: string
  readonly label: string
  readonly count: number
  readonly also?: readonly string[]
}
const route = useRoute()
const isAt = (link: Link) => link.also?.some(a => route.path.startsWith(`${base.value}/${a}`)) ?? false
const links = computed<Link[]>(() =>
  seminar.isStaff
    ? [
        { to: `${base.value}/plan`, label: 'Term plan', count: 0 },
        { to: `${base.value}/marking`, label: 'Marking', count: seminar.shell?.readyToMark ?? 0 },
        {
          to: `${base.value}/voices`,
          label: 'Voices',
          count: seminar.shell?.messages.fresh ?? 0,
          also: ['voices', 'presence', 'messages'],
        },
        { to: `${base.value}/gradebook`, label: 'Gradebook', count: 0, also: ['outcomes'] },
        { to: `${base.value}/people`, label: 'People', count: 0 },
        { to: `${base.value}/library`, label: 'Library', count: 0 },
        ...(seminar.shell?.role === 'instructor'
          ? [{ to: `${base.value}/settings`, label: 'Settings', count: 0 }]
          : []),
      ]
    : [
        ...(seminar.isStudent
          ? [
              { to: `${base.value}/week`, label: 'My week', count: 0 },
              { to: `${base.value}/progress`, label: 'Progress', count: 0 },
              { to: `${base.value}/grades`, label: 'Grades', count: 0 },
            ]
          : []),
        { to: `${base.value}/plan`, label: 'Seminar', count: 0 },
        ...(seminar.isStudent ? [{ to: `${base.value}/groups`, label: 'Groups', count: 0 }] : []),
        ...(seminar.isStudent
          ? [{ to: `${base.value}/feedback`, label: 'Feedback', count: seminar.shell?.lettersBack ?? 0 }]
          : []),
        ...(seminar.shell?.messages.any
          ? [{ to: `${base.value}/messages`, label: 'Messages', count: seminar.shell.messages.fresh }]
          : []),
      ],
)
const appearances: ReadonlyArray<readonly [Appearance, string]> = [
  ['system', 'as this device'],
  ['paper', 'light'],
  ['night', 'dark'],
]

const ownData = computed(() =>
  addressOf(keepingEndpoints.downloadOwnData, { params: { seminarId: seminar.shell!.id } }),
)
</script>

<template>
  <header class="top">
    <NuxtLink class="mark" to="/?all=1" aria-label="Jovrel, home">J<i>o</i>vrel</NuxtLink>
    <p v-if="seminar.shell" class="seminar">
      {{ seminar.shell.title }} <span>· {{ seminar.shell.code }}</span
      ><span v-if="zone.named.value" class="zone">{{ zone.named.value }}</span>
    </p>
    <nav aria-label="Seminar">
      <NuxtLink
        v-for="link in links"
        :key="link.to"
        :to="link.to"
        :class="{ 'router-link-active': isAt(link) }"
        >{{ link.label }}<b v-if="link.count" class="num">{{ link.count }}</b></NuxtLink
      >
    </nav>
    <PlainButton class="find" aria-keyshortcuts="Control+K" @click="emit('find')">
      <span>Find anything</span><kbd>Ctrl K</kbd>
    </PlainButton>
    <v-btn class="quiet keys-control" aria-keyshortcuts="?" @click="emit('keys')">Keys</v-btn>
    <NoticeMenu v-if="seminar.shell" />
    <CardMenu label="Appearance and signing out">
      <template #opener="{ opener }">
        <PlainButton
          v-bind="opener"
          class="me"
          :aria-label="`${session.session?.person.initials}, ${session.session?.person.name}: appearance and signing out`"
        >
          {{ session.session?.person.initials }}
        </PlainButton>
      </template>
      <div class="menu">
        <p class="who">{{ session.session?.person.name }}</p>
        <fieldset>
          <legend>Show pages</legend>
          <label v-for="[value, label] in appearances" :key="value"
            ><PlainRadio name="appearance" :checked="chosen === value" @change="choose(value)" />
            {{ label }}</label
          >
        </fieldset>
        <fieldset>
          <legend>Notices with an undo stay</legend>
          <label v-for="t in NOTICE_TIMES" :key="t.value"
            ><PlainRadio
              name="notice-time"
              :checked="noticeTime === t.value"
              @change="noticeTime = t.value"
            />
            {{ t.label }}</label
          >
        </fieldset>
        <p class="ways-in">
          <NuxtLink to="/account">Account: mail and calendar</NuxtLink>
          <a v-if="seminar.isStudent && !seminar.shell?.studentsEye" :href="ownData" download
            >Download all your data</a
          >
          <TextButton v-if="seminar.isStaff" @click="emit('eye')"> See as a student </TextButton>
          <NuxtLink v-if="session.session?.person.mailroom" to="/mailroom">Mailroom</NuxtLink>
          <NuxtLink v-if="session.session?.person.readsAccessLog" to="/access-log">Access log</NuxtLink>
          <NuxtLink to="/?all=1">All your seminars</NuxtLink>
        </p>
        <SignOut v-slot="{ leave: signOut, busy }"
          ><v-btn :disabled="busy" @click="signOut">Sign out</v-btn></SignOut
        >
      </div></CardMenu
    >
  </header>
</template>

<style scoped>
.top {
  height: 50px;
  flex: none;
  display: flex;
  align-items: center;
  padding: 0 20px;
  gap: 22px;
  background: var(--paper);
}
.mark {
  font: 600 1.1875rem/1 var(--read);
  letter-spacing: -0.02em;
  color: var(--harbour-deep);
  text-decoration: none;
}
.mark i {
  color: var(--ember);
  font-style: normal;
}
.seminar {
  font-weight: 600;
  font-size: 0.84375rem;
  padding-left: 22px;
  border-left: 1px solid var(--line);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}
.seminar span {
  color: var(--ink-3);
  font-weight: 500;
}
.seminar .zone {
  display: block;
  font-size: 0.71875rem;
  line-height: 1.2;
}
nav {
  display: flex;
  gap: 4px;
  margin-left: auto;
}
nav a {
  padding: 7px 11px;
  border-radius: var(--r);
  color: var(--ink-2);
  font-weight: 500;
  text-decoration: none;
  white-space: nowrap;
}
nav a:hover {
  color: var(--ink);
  background: var(--sunken);
}
nav a.router-link-active {
  color: var(--harbour-deep);
  font-weight: 650;
  background: var(--harbour-soft);
}
nav b {
  font-weight: 600;
  color: var(--ember);
  margin-left: 5px;
}
.me {
  width: 32px;
  height: 32px;
  flex: none;
  border: 0;
  border-radius: 50%;
  background: var(--band);
  color: var(--on-band);
  font: 600 0.75rem/32px var(--ui);
  text-align: center;
  padding: 0;
  cursor: pointer;
}
.me:focus-visible {
  border-radius: 50%;
}
.menu {
  padding: 14px 16px 16px;
  display: grid;
  gap: 12px;
  min-width: 220px;
}
.who {
  font-weight: 650;
}
.ways-in {
  display: grid;
  gap: 7px;
  justify-items: start;
  border-top: 1px solid var(--line-soft);
  border-bottom: 1px solid var(--line-soft);
  padding: 10px 0;
}
.find {
  display: flex;
  gap: 14px;
  align-items: center;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--sheet);
  padding: 5px 8px 5px 13px;
  color: var(--ink-2);
  font-size: 0.8125rem;
  cursor: pointer;
  white-space: nowrap;
}
.find:hover {
  border-color: var(--ink-3);
  color: var(--ink);
}
.find:focus-visible {
  border-radius: 999px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
}
legend {
  font-size: 0.78125rem;
  color: var(--ink-3);
  margin-bottom: 4px;
  padding: 0;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
@media (max-width: 1400px) {
  .top {
    gap: 15px;
  }
  nav {
    gap: 2px;
  }
  nav a {
    padding: 7px 9px;
  }
  .seminar {
    padding-left: 15px;
  }
}
@media (max-width: 1100px) {
  .find kbd {
    display: none;
  }
}
@media (max-width: 1060px) {
  .find {
    padding: 5px 10px;
  }
  .top {
    height: auto;
    flex-wrap: wrap;
    padding: 8px 14px;
    gap: 6px 12px;
  }
  .seminar {
    padding-left: 12px;
    flex: 1;
  }
  nav {
    order: 3;
    width: 100%;
    margin: 0 -6px;
    overflow-x: auto;
  }
  .me {
    margin-left: auto;
  }
}
@media (max-width: 700px) {
  .keys-control.keys-control {
    display: none;
  }
}
</style>
