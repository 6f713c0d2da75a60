<script setup lang="ts">
import type { WikiShares } from '#shared/kinds/wiki/wiki'
import { plural } from '#core/language'
import { toneOf } from './memberTones'
import PlainButton from '~/components/controls/PlainButton.vue'

/** What each member put into the wiki: words standing and written, edits, comments made, and comments acted upon. */
const props = defineProps<{ shares: WikiShares; only: string | null }>()
const emit = defineEmits<{ only: [memberId: string | null] }>()
const most = computed(() => Math.max(1, ...props.shares.members.map(m => Math.max(m.written, m.standing))))
const members = computed(() => props.shares.members.map(m => m.member))
const percent = (standing: number) =>
  props.shares.words > 0 ? Math.round((standing / props.shares.words) * 100) : 0
const MARKS = 9 // so many signs at most; beyond, the figure says it
</script>

<template>
  <section class="shares" aria-label="Shares of this wiki">
    <h2>
      Shares of this wiki <span class="num">{{ shares.words.toLocaleString('en') }} words stand</span>
    </h2>
    <table>
      <thead>
        <tr>
          <th class="legend" scope="col">
            <span class="visually-hidden">Member</span>hatched: written,<br />since replaced
          </th>
          <th class="wide" scope="col">words<br />standing</th>
          <th class="wide" scope="col"><br />written</th>
          <th class="wide" scope="col">comm.<br />made</th>
          <th class="wide" scope="col"><br />acted on</th>
        </tr>
      </thead>
      <tbody v-for="m in shares.members" :key="m.member.id" :class="{ dim: only && only !== m.member.id }">
        <tr>
          <th scope="row" :title="m.member.name">
            <PlainButton
              :aria-pressed="only === m.member.id"
              @click="emit('only', only === m.member.id ? null : m.member.id)"
            >
              {{ m.member.isMe ? 'You' : m.member.name }}
            </PlainButton>
          </th>
          <td class="num">{{ m.standing }}</td>
          <td class="num">{{ m.written }}</td>
          <td class="num">{{ m.made }}</td>
          <td class="num">{{ m.received === 0 ? '–' : `${m.actedOn} of ${m.received}` }}</td>
        </tr>
        <tr aria-hidden="true" class="bars" :style="toneOf(members, m.member.id)">
          <td colspan="3">
            <div>
              <span class="bar"
                ><i :style="{ width: `${(m.standing / most) * 100}%` }" /><u
                  :style="{ width: `${(Math.max(0, m.written - m.standing) / most) * 100}%` }" /></span
              ><b>{{ percent(m.standing) }}%, {{ m.edits }} {{ plural(m.edits, 'edit') }}</b>
            </div>
          </td>
          <td>
            <span class="rings"><i v-for="n in Math.min(MARKS, m.made)" :key="n" /></span>
          </td>
          <td>
            <span class="squares"
              ><i v-for="n in Math.min(MARKS, m.received)" :key="n" :class="{ on: n <= m.actedOn }"
            /></span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="shares.others > 0" class="hint">
      {{ shares.others }} standing words are nobody’s of them: staff’s, or of somebody who has left.
    </p>
    <p v-if="shares.members.length === 0" class="hint">Nobody has written here yet.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  letter-spacing: 0;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
table {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
  margin-top: 4px;
  font-size: 0.8125rem;
}
thead th {
  font: 500 0.71875rem/14px var(--ui);
  color: var(--ink-3);
  text-align: right;
  vertical-align: bottom;
  padding: 0 0 3px 6px;
}
.wide {
  width: 50px;
}
.legend {
  text-align: left !important;
  padding-left: 0 !important;
}
tbody {
  border-top: 1px solid var(--line-soft);
}
tbody th {
  text-align: left;
  padding: 5px 0 1px;
}
tbody th button {
  border: 0;
  background: none;
  padding: 0;
  font: 600 0.8125rem/1.3 var(--ui);
  cursor: pointer;
  text-align: left;
  color: var(--ink);
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
tbody th button:hover {
  text-decoration: underline;
}
td {
  text-align: right;
  padding: 5px 0 1px 6px;
  white-space: nowrap;
}
.bars td {
  padding: 0 0 6px 6px;
  vertical-align: top;
}
.bars td:first-child {
  padding-left: 0;
}
.bars td > div {
  display: flex;
  align-items: center;
  gap: 7px;
}
.bar {
  display: flex;
  flex: 1;
  height: 11px;
}
.bar i {
  background: var(--tone);
  display: block;
}
.bar u {
  display: block;
  background: repeating-linear-gradient(135deg, var(--tone) 0 1.2px, transparent 1.2px 4px);
  border: 1px solid var(--tone);
}
.bars b {
  font: 600 0.71875rem/1 var(--ui);
  color: var(--ink-2);
}
.rings,
.squares {
  display: inline-flex;
  gap: 2px;
  flex-wrap: wrap;
  justify-content: flex-end;
  max-width: 46px;
}
.rings i {
  width: 6px;
  height: 6px;
  border-radius: 50%;
  border: 1.5px solid var(--tone);
}
.squares i {
  width: 6px;
  height: 6px;
  border: 1.2px solid var(--tone);
}
.squares .on {
  background: var(--tone);
}
.dim {
  opacity: 0.5;
}
</style>
