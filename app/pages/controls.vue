<script setup lang="ts">
import CardMenu from '~/components/controls/CardMenu.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import ChipButton from '~/components/controls/ChipButton.vue'
import ClockField from '~/components/controls/ClockField.vue'
import DayField from '~/components/controls/DayField.vue'
import FileInput from '~/components/controls/FileInput.vue'
import KeyHint from '~/components/controls/KeyHint.vue'
import LabelledField from '~/components/controls/LabelledField.vue'
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import MomentField from '~/components/controls/MomentField.vue'
import PickList from '~/components/controls/PickList.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import PlainRadio from '~/components/controls/PlainRadio.vue'
import TextButton from '~/components/controls/TextButton.vue'
import SavedMark from '~/components/shell/SavedMark.vue'
import { useNotices } from '~/stores/notices'

/** Every control in every state, for who develops Jovrel; the application that is built does not have this page. */
definePageMeta({ layout: 'plain' })
useHead({ title: 'Controls' })
const notices = useNotices()
const TODAY = '2026-11-29'
const STATES = ['saved', 'changed', 'saving', 'kept here', 'clash'] as const
const [isDialogOpen, isMenuOpen] = [ref(false), ref(false)]
const form = reactive({
  line: 'Harbour Cities',
  wrong: 'ines@',
  lines: 'Two lines\nof plain text.',
  number: 12,
  picked: 'b',
  ticked: true,
  radio: 'one',
  day: TODAY,
  clock: '23:59',
  moment: `${TODAY}T23:59`,
  chip: 'weekly',
})
const say = () =>
  notices.say('Something was done.', { label: 'Undo', run: () => notices.say('It is undone.') })
</script>

<template>
  <main id="page" class="controls" tabindex="-1">
    <h1>Controls</h1>
    <section>
      <h2>Buttons</h2>
      <p>
        <v-btn class="main">Publish</v-btn><v-btn>Preview <KeyHint of="p" /></v-btn
        ><v-btn class="quiet">Cancel</v-btn><v-btn class="main" disabled>Publish</v-btn
        ><v-btn disabled>Preview</v-btn><TextButton>Edit</TextButton><TextButton disabled>Edit</TextButton>
      </p>
      <p>
        <ChipButton
          v-for="chip in ['once', 'weekly']"
          :key="chip"
          :class="{ on: form.chip === chip }"
          :aria-pressed="form.chip === chip"
          @click="form.chip = chip"
        >
          {{ chip }}
        </ChipButton>
      </p>
    </section>
    <section>
      <h2>Fields</h2>
      <div class="pair">
        <LabelledField
          v-model="form.line"
          label="Title"
          name="title"
          autocomplete="off"
          hint="As the class reads it."
        />
        <LabelledField
          v-model="form.wrong"
          label="Address"
          name="address"
          type="email"
          autocomplete="off"
          problem="An address has something after the @."
        />
      </div>
      <p>
        <label>Line <LineInput v-model="form.line" class="in" /></label
        ><label>Number <LineInput v-model="form.number" class="in short" type="number" min="0" /></label
        ><label>Disabled <LineInput v-model="form.line" class="in" disabled /></label
        ><label>Wrong <LineInput v-model="form.wrong" class="in" aria-invalid="true" /></label>
      </p>
      <p>
        <label>Lines <LinesInput v-model="form.lines" class="in" rows="3" /></label>
        <label
          >One of a list
          <PickList v-model="form.picked" class="in">
            <option value="a">the first</option>
            <option value="b">the second</option>
          </PickList></label
        >
        <label class="v-btn"
          >Choose a file …<FileInput class="visually-hidden" @change="notices.say('A file is chosen.')"
        /></label>
      </p>
    </section>
    <section>
      <h2>Days and times</h2>
      <p>
        <DayField v-model="form.day" label="Day" :today="TODAY" />
        <ClockField v-model="form.clock" label="Time" />
        <MomentField v-model="form.moment" label="Due" :today="TODAY" usual="23:59" />
        <MomentField v-model="form.moment" label="Locked" :today="TODAY" usual="23:59" disabled />
      </p>
    </section>
    <section>
      <h2>Ticks and choices</h2>
      <CheckBox v-model="form.ticked">Everyone reads it</CheckBox>
      <CheckBox v-model="form.ticked" disabled>Everyone reads it</CheckBox>
      <p>
        <label><PlainCheckbox v-model="form.ticked" /> one of many</label>
        <label v-for="r in ['one', 'another']" :key="r"
          ><PlainRadio v-model="form.radio" name="one-or-another" :value="r" /> {{ r }}</label
        >
      </p>
    </section>
    <section>
      <h2>Above the page</h2>
      <p>
        <CardMenu v-model="isMenuOpen" label="A small card" location="bottom start">
          <template #opener="{ opener }"><v-btn v-bind="opener">A small card</v-btn></template>
          <p class="card">Something to choose. <TextButton @click="isMenuOpen = false">Close</TextButton></p>
        </CardMenu>
        <v-btn @click="isDialogOpen = true">A dialog</v-btn><v-btn @click="say">A notice</v-btn
        ><v-btn @click="notices.warn(new Error('It could not be done.'))">A warning</v-btn>
      </p>
      <ModalDialog v-model="isDialogOpen" max-width="420" aria-labelledby="dialog-title">
        <div class="card">
          <h2 id="dialog-title">A dialog</h2>
          <p>The keyboard stays in it and is given back when it closes.</p>
          <p><v-btn class="main" @click="isDialogOpen = false">Close</v-btn></p>
        </div>
      </ModalDialog>
    </section>
    <section>
      <h2>What was kept</h2>
      <div class="pair">
        <SavedMark v-for="s in STATES" :key="s" :state="s" :problem="null" :joined="null" />
      </div>
      <p class="field-problem" role="alert">What was wrong, at its place.</p>
      <p class="hint">What helps to fill it in.</p>
      <details>
        <summary>More, unfolded when it is wanted</summary>
        <p>This is more.</p>
      </details>
    </section>
  </main>
</template>

<style scoped>
.controls {
  max-width: 920px;
  margin: 0 auto;
  padding: 24px 20px 80px;
}
section {
  margin-top: 28px;
  padding-top: 12px;
  border-top: 1px solid var(--line-soft);
}
section > p:not([class]),
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 16px;
  align-items: center;
  margin-top: 12px;
}
.card {
  padding: 16px 20px;
}
.pair > .field {
  flex: 1 1 260px;
}
</style>
