<script setup lang="ts">
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { SeminarShell } from '#shared/people/seminar'
import type { Found } from '#shared/planning/find'
import { KIND_WORDS } from '~/kinds/words'
import { useApi } from '~/composables/shell/useApi'
import * as planningEndpoints from '#shared/planning/endpoints'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Finds any activity, person or contribution, and does any act by its name. */
const props = defineProps<{ shell: SeminarShell }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ eye: [] }>()
const api = useApi()
const words = ref('')
const found = shallowRef<Found | null>(null)
const looking = ref(false)
const problem = ref<string | null>(null)
const at = ref(0)
const box = ref<Focusable | null>(null)
let timer: ReturnType<typeof setTimeout> | undefined
let asked = 0
let enterWaits = false // Enter came before the answer to what was typed
const base = computed(() => `/seminars/${props.shell.id}`)
const staff = computed(() => props.shell.role === 'instructor' || props.shell.role === 'assistant')
const manages = computed(() => props.shell.role === 'instructor')

interface Hit {
  readonly key: string
  readonly text: string
  readonly note: string
  readonly run: () => unknown
}
const to = (path: string) => () => navigateTo(path)
/** Where on a wiki a contribution stands. */
function pageQuery(page: { id: string; groupId: string | null } | null) {
  if (!page) return ''
  return page.groupId ? `?group=${page.groupId}&page=${page.id}` : `?page=${page.id}`
}
const acts = computed<Hit[]>(() => [
  ...(staff.value
    ? [
        ['Term plan', 'plan'],
        ['Marking queue', 'marking'],
        ['Gradebook', 'gradebook'],
        ['People', 'people'],
        ['Groups', 'groups'],
        ['Library of rubrics', 'library'],
      ]
    : [
        ['My week', 'week'],
        ['Progress', 'progress'],
        ['Grades', 'grades'],
        ['Seminar plan', 'plan'],
        ['Groups', 'groups'],
        ['Feedback', 'feedback'],
      ]
  ).map(([text, path]) => ({ key: path!, text: text!, note: 'go there', run: to(`${base.value}/${path}`) })),
  ...(manages.value
    ? [
        {
          key: 'settings',
          text: 'Seminar settings',
          note: 'term, breaks, units, categories',
          run: to(`${base.value}/settings`),
        },
        {
          key: 'roster',
          text: 'Import a roster',
          note: 'on the people page',
          run: to(`${base.value}/people`),
        },
        {
          key: 'code',
          text: 'Make a joining code',
          note: 'on the people page',
          run: to(`${base.value}/people`),
        },
        { key: 'groups+', text: 'Make groups', note: 'on the groups page', run: to(`${base.value}/groups`) },
        { key: 'rubric', text: 'Write a rubric', note: 'in the library', run: to(`${base.value}/library`) },
      ]
    : []),
  ...(staff.value
    ? [
        {
          key: 'eye',
          text: 'See as a student',
          note: 'see the seminar as a practice student',
          run: () => emit('eye'),
        },
      ]
    : []),
  {
    key: 'account',
    text: 'Account: mail and calendar',
    note: 'how often Jovrel writes to you',
    run: to('/account'),
  },
  { key: 'all', text: 'All your seminars', note: '', run: to('/?all=1') },
  ...(manages.value ? [{ key: 'new', text: 'Set up a seminar', note: '', run: to('/seminars/new') }] : []),
])
const groups = computed(() => {
  const plain = words.value.trim().toLowerCase()
  const doing = acts.value
    .filter(a => plain === '' || `${a.text} ${a.note}`.toLowerCase().includes(plain))
    .slice(0, plain === '' ? 12 : 5)
  const f = found.value
  return [
    {
      title: 'Activities',
      hits: (f?.activities ?? []).map((a): Hit => {
        const stateWords = () => {
          if (a.template) return ', template'
          if (a.state === 'published') return ''
          return `, ${a.state}`
        }
        return {
          key: a.id,
          text: a.title,
          note: `${KIND_WORDS[a.kind].name}${stateWords()}`,
          run: to(`${base.value}/activities/${a.id}${a.state === 'published' && !a.template ? '' : '/plan'}`),
        }
      }),
    },
    { title: 'Do', hits: doing },
    {
      title: 'Contributions',
      hits: (f?.contributions ?? []).map((c): Hit => ({
        key: c.id,
        text: c.excerpt,
        note: `${c.author} in ${c.title}`,
        run: to(`${base.value}/activities/${c.activityId}${pageQuery(c.page)}#c-${c.id}`),
      })),
    },
    {
      title: 'People',
      hits: (f?.people ?? []).map((p): Hit => ({
        key: p.id,
        text: p.name,
        note: p.role,
        run: to(`${base.value}/${staff.value ? 'people' : 'groups'}`),
      })),
    },
  ].filter(g => g.hits.length > 0)
})
const flat = computed(() => groups.value.flatMap(g => g.hits))
const chosen = computed(() => flat.value[Math.min(at.value, flat.value.length - 1)])

watch(open, is => {
  if (!is) return
  words.value = ''
  found.value = null
  at.value = 0
  void nextTick(() => setTimeout(() => box.value?.focus()))
})
watch(words, value => {
  at.value = 0
  problem.value = null
  enterWaits = false
  clearTimeout(timer)
  if (value.trim().length < 2) {
    found.value = null
    looking.value = false
    return
  }
  looking.value = true
  timer = setTimeout(() => void search(value.trim()), 180)
})
async function search(value: string) {
  const mine = ++asked
  try {
    const answer = await api.call(planningEndpoints.findInSeminar, {
      params: { seminarId: props.shell.id },
      query: { q: value.slice(0, 100) },
    })
    if (mine === asked) found.value = answer
  } catch (error) {
    if (mine === asked) problem.value = error instanceof Error ? error.message : String(error)
  } finally {
    if (mine === asked) {
      looking.value = false
      if (enterWaits) void nextTick(() => run(chosen.value))
    }
  }
}
function run(hit: Hit | undefined) {
  if (!hit) return
  open.value = false
  void hit.run()
}
function onKey(event: KeyboardEvent) {
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    const n = flat.value.length
    if (n > 0) at.value = (Math.min(at.value, n - 1) + (event.key === 'ArrowDown' ? 1 : n - 1)) % n
  }
  if (event.key === 'Enter') {
    event.preventDefault()
    if (looking.value) enterWaits = true
    else run(chosen.value)
  }
}
</script>

<template>
  <ModalDialog v-model="open" max-width="620" class="find-dialog" aria-label="Find anything">
    <div class="card finder">
      <LineInput
        ref="box"
        v-model="words"
        class="box"
        type="search"
        placeholder="an activity, a person, words somebody wrote, or what you want to do"
        aria-label="Find"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        :aria-activedescendant="chosen ? `hit-${chosen.key}` : undefined"
        @keydown="onKey"
      />
      <div id="found" class="found" role="listbox" aria-label="Found">
        <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
        <template v-for="g in groups" :key="g.title">
          <p class="cap">{{ g.title }}</p>
          <PlainButton
            v-for="hit in g.hits"
            :id="`hit-${hit.key}`"
            :key="hit.key"
            role="option"
            :aria-selected="hit === chosen"
            :class="{ on: hit === chosen, long: g.title === 'Contributions' }"
            tabindex="-1"
            @click="run(hit)"
            @pointermove="at = flat.indexOf(hit)"
          >
            <b>{{ hit.text }}</b><span>{{ hit.note }}</span>
          </PlainButton>
        </template>
        <p v-if="flat.length === 0 && !looking" class="hint none">
          Nothing has these words, and nothing is called so.
        </p>
      </div>
      <p class="keys hint">
        <kbd>↑</kbd><kbd>↓</kbd> choose <kbd>Enter</kbd> open <kbd>Esc</kbd> close<span v-if="looking"
          >looking …</span
        >
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
.finder {
  overflow: hidden;
  display: flex;
  flex-direction: column;
  max-height: 74vh;
}
.box {
  border: 0;
  border-bottom: 1px solid var(--line);
  background: transparent;
  padding: 15px 18px;
  font: 400 1.0625rem/1.4 var(--read);
  color: var(--ink);
  outline: none;
}
.box:focus-visible {
  box-shadow: none;
  border-radius: 0;
}
.found {
  overflow: auto;
  padding: 4px 8px 8px;
  min-height: 120px;
}
.cap {
  font: 600 0.75rem/1.3 var(--ui);
  color: var(--ink-3);
  padding: 9px 10px 3px;
}
.found button {
  width: 100%;
  display: flex;
  justify-content: space-between;
  gap: 18px;
  align-items: baseline;
  border: 0;
  background: none;
  text-align: left;
  padding: 7px 10px;
  border-radius: 6px;
  cursor: pointer;
}
.found .on {
  background: var(--harbour-soft);
}
.found b {
  font: 500 0.90625rem/1.4 var(--read);
  min-width: 0;
}
.found span {
  color: var(--ink-2);
  font-size: 0.78125rem;
  white-space: nowrap;
}
.found .long {
  display: grid;
  gap: 1px;
}
.none {
  padding: 18px 10px;
}
.keys {
  border-top: 1px solid var(--line-soft);
  padding: 7px 16px;
  display: flex;
  gap: 7px;
  align-items: center;
}
.keys span {
  margin-left: auto;
}
</style>
