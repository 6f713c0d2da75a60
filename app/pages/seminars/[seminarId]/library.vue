<script setup lang="ts">
import FileInput from '~/components/controls/FileInput.vue'
import { KIND_WORDS } from '~/kinds/words'
import type { ActivityKind } from '#core/kinds/kind'
import type { LibraryRubric } from '#shared/marking/rubric'
import OutcomeList from '~/components/marking/OutcomeList.vue'
import LibraryTexts from '~/kinds/reading/LibraryTexts.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { capital, inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { offerFile, toBase64 } from '~/composables/files/readFile'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as markingEndpoints from '#shared/marking/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Library' })
const route = useRoute()
const params = { seminarId: String(route.params.seminarId) }
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const { data, error, refresh } = await useAsyncData(`library-${route.params.seminarId}`, () =>
  api.call(markingEndpoints.readLibrary, { params }),
)
const passedOver = ref<string[]>([])

const editor = (id: string) => `/seminars/${route.params.seminarId}/rubrics/${id}`
const begin = () =>
  attempt(async () => {
    const level = (title: string, n: number) => ({ title, points: n * 100, pointsFrom: null, descriptor: '' })
    const made = await api.call(markingEndpoints.makeRubric, {
      params,
      body: {
        key: newKey(),
        rubric: {
          title: 'New rubric',
          criteria: [
            {
              title: 'First criterion',
              scope: 'own',
              weight: 1,
              suggestFrom: null,
              outcomes: [],
              levels: [level('Begins', 1), level('Gets there', 3), level('Excels', 5)],
            },
          ],
        },
      },
    })
    await navigateTo(editor(made.id))
  })
const take = (event: Event) =>
  attempt(async () => {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
    if (!file) return
    const answer = await api.call(markingEndpoints.importRubric, {
      params,
      body: { key: newKey(), name: file.name, base64: await toBase64(file) },
    })
    passedOver.value = answer.passedOver
    await refresh()
    const parts = [
      answer.rubrics > 0 && `${inWords(answer.rubrics)} ${plural(answer.rubrics, 'rubric')}`,
      answer.outcomes > 0 && `${inWords(answer.outcomes)} learning ${plural(answer.outcomes, 'outcome')}`,
    ].filter(Boolean)
    if (parts.length > 0) notices.say(`${capital(parts.join(' and '))} imported.`)
  })
const give = (r: LibraryRubric, form: 'json' | 'csv') =>
  attempt(async () => {
    const file = await api.call(markingEndpoints.exportRubric, {
      params: { rubricId: r.rubric.id },
      query: { form },
    })
    offerFile(file.name, file.type, file.text)
  })
const archive = (r: LibraryRubric) =>
  attempt(async () => {
    await api.call(markingEndpoints.removeRubric, { params: { rubricId: r.rubric.id } })
    await refresh()
    notices.say(
      `“${r.rubric.title}” is removed from the library. Activities and marks that use it keep it.`,
      {
        label: 'Undo',
        run: async () => {
          await attempt(() => api.call(markingEndpoints.restoreRubric, { params: { rubricId: r.rubric.id } }))
          await refresh()
        },
      },
    )
  })
const copy = (r: LibraryRubric) =>
  attempt(async () => {
    const made = await api.call(markingEndpoints.makeRubric, {
      params,
      body: {
        key: newKey(),
        rubric: {
          title: `${r.rubric.title} (copy)`,
          criteria: r.rubric.criteria.map(c => ({
            title: c.title,
            scope: c.scope,
            weight: c.weight,
            suggestFrom: c.suggestFrom,
            outcomes: (data.value?.outcomes ?? [])
              .filter(o => c.outcomeIds.includes(o.id))
              .map(o => o.identifier),
            levels: c.levels.map(({ title, points: p, pointsFrom, descriptor }) => ({
              title,
              points: p,
              pointsFrom,
              descriptor,
            })),
          })),
        },
      },
    })
    await navigateTo(editor(made.id))
  })
const versionWords = (r: LibraryRubric) =>
  [
    r.usedBy.length > 0 ? `used in ${r.usedBy.map(a => `“${a.title}”`).join(', ')}` : 'not used yet',
    ...r.earlier.map(e => `${e.marks} ${plural(e.marks, 'mark')} given under version ${e.version} stay`),
  ].join(' · ')
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf">
    <div class="leaf-head">
      <h1>Library</h1>
      <p class="muted small">what this seminar reads, is marked by and planned with</p>
      <span class="grow" />
      <template v-if="data.mayManage">
        <label class="v-btn file"
          ><FileInput accept=".json,.csv,.txt" class="visually-hidden" @change="take" />Import CASE JSON or
          CSV …</label
        >
        <v-btn class="main" @click="begin">Write a rubric</v-btn>
      </template>
    </div>
    <p v-for="sentence in passedOver" :key="sentence" class="field-problem" role="alert">{{ sentence }}</p>
    <LibraryTexts :seminar-id="String(route.params.seminarId)" />
    <h2>Rubrics</h2>
    <p v-if="data.rubrics.length === 0" class="invite">
      There is no rubric yet. Write one, or import one that your college uses.
    </p>
    <ul>
      <li v-for="r in data.rubrics" :key="r.rubric.id">
        <div class="head">
          <NuxtLink :to="editor(r.rubric.id)">{{ r.rubric.title }}</NuxtLink><span class="hint"
            >version {{ r.rubric.version }}</span
          ><b class="num">{{ points(r.points) }} points</b>
        </div>
        <div class="bars" aria-hidden="true">
          <span v-for="c in r.rubric.criteria" :key="c.id" :style="{ flex: c.max * c.weight }"
            ><em>{{ c.title }}</em
            ><i
              ><u v-for="l in c.levels" :key="l.id">{{
                l.pointsFrom === null ? points(l.points) : `${points(l.pointsFrom)}–${points(l.points)}`
              }}</u></i
            ></span
          >
        </div>
        <p class="foot">
          <span class="hint">{{ versionWords(r) }}</span><span class="grow" /><TextButton
            @click="give(r, 'json')"
          >
            CASE JSON</TextButton
          ><TextButton @click="give(r, 'csv')">CSV</TextButton
          ><template v-if="data.mayManage"
            ><TextButton @click="copy(r)">Copy</TextButton
            ><TextButton @click="archive(r)">Remove</TextButton></template
          >
        </p>
      </li>
    </ul>
    <div class="two">
      <section aria-labelledby="outcomes-title">
        <h2 id="outcomes-title">Learning outcomes</h2>
        <OutcomeList
          :outcomes="data.outcomes"
          :may-manage="data.mayManage"
          :seminar-id="params.seminarId"
          @changed="refresh()"
        />
      </section>
      <section>
        <h2>Templates</h2>
        <p v-if="data.templates.length === 0" class="hint">
          None yet. An activity can be saved as a template from its page on the term plan.
        </p>
        <ul v-else class="plain">
          <li v-for="t in data.templates" :key="t.id">
            <NuxtLink :to="`/seminars/${route.params.seminarId}/activities/${t.id}/plan`">{{
              t.title
            }}</NuxtLink>{{ ' ' }}<span class="hint">{{ KIND_WORDS[t.kind as ActivityKind].name }}</span>
          </li>
        </ul>
      </section>
    </div>
  </main>
</template>

<style scoped>
.leaf {
  overflow: auto;
  flex: 1;
}
h2 {
  font: 600 1rem/1.3 var(--read);
  margin: 14px 0 4px;
}
ul {
  list-style: none;
}
li {
  padding: 13px 0 10px;
  border-top: 1px solid var(--line);
}
.head {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
.head a {
  font: 600 1.0625rem/1.3 var(--read);
  color: var(--ink);
  text-decoration-color: transparent;
}
.head a:hover {
  text-decoration-color: currentcolor;
}
.head b {
  margin-left: auto;
}
.bars {
  display: flex;
  gap: 14px;
  margin: 8px 0 6px;
}
.bars span {
  min-width: 0;
  display: grid;
  gap: 3px;
}
.bars em {
  font: 500 0.78125rem/1.2 var(--ui);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.bars i {
  display: flex;
  gap: 2px;
  font-style: normal;
}
.bars u {
  flex: 1;
  background: var(--sunken);
  text-align: center;
  font: 600 0.71875rem/19px var(--ui);
  text-decoration: none;
  border-radius: 3px;
  white-space: nowrap;
  overflow: hidden;
}
.foot {
  display: flex;
  gap: 16px;
  font-size: 0.8125rem;
  align-items: baseline;
}
.file {
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.file:focus-within {
  outline: 2px solid var(--ember);
  outline-offset: 2px;
  box-shadow: var(--focus);
}
.two {
  display: grid;
  grid-template-columns: 1.3fr 1fr;
  gap: 36px;
  margin-top: 14px;
  border-top: 1px solid var(--line);
}
.plain li {
  padding: 7px 0;
  border-top-color: var(--line-soft);
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
  .bars {
    flex-wrap: wrap;
  }
  .foot {
    flex-wrap: wrap;
  }
}
</style>
