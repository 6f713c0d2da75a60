// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import * as vue from 'vue'
import NoticeBar from './NoticeBar.vue'
import { useNotices } from '~/stores/notices'

vi.mock('~/composables/shell/useNoticeTime', () => ({ useNoticeTime: () => vue.ref(12_000) }))

/** The bar of the library, as far as its clock goes: it starts when the bar opens and when its time changes. */
const Bar = vue.defineComponent({
  props: { modelValue: Boolean, timeout: Number },
  emits: ['update:modelValue'],
  setup(props, { emit, slots }) {
    let clock: ReturnType<typeof setTimeout> | undefined
    const start = () => {
      clearTimeout(clock)
      if (props.modelValue) clock = setTimeout(() => emit('update:modelValue', false), props.timeout)
    }
    vue.watch(() => props.modelValue, start)
    vue.watch(() => props.timeout, start)
    return () => (props.modelValue ? vue.h('div', slots['default']?.()) : null)
  },
})

beforeEach(() => {
  vi.useFakeTimers()
  setActivePinia(createPinia())
})
afterEach(() => vi.useRealTimers())

it('a notice stays its whole time, however soon it follows another', async () => {
  const bar = mount(NoticeBar, { global: { stubs: { 'v-snackbar': Bar } } })
  const notices = useNotices()
  const undo = { label: 'Undo', run: () => {} }
  notices.say('Cited.', undo)
  await vi.advanceTimersByTimeAsync(11_000)
  notices.say('Held.', undo)
  await vi.advanceTimersByTimeAsync(11_000)
  expect(bar.text()).toBe('Held.')
  notices.say('Held again.', undo)
  await vi.advanceTimersByTimeAsync(11_000)
  expect(bar.text()).toBe('Held again.')
  await vi.advanceTimersByTimeAsync(2_000)
  expect(bar.text()).toBe('')
  bar.unmount()
})
