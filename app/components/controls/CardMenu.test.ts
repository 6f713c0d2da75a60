// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { afterEach, expect, it, vi } from 'vitest'
import * as vue from 'vue'
import CardMenu from './CardMenu.vue'

/** A menu that takes no key itself, as one does for a moment after a card above it has closed. */
const Menu = vue.defineComponent({
  inheritAttrs: false,
  props: { modelValue: Boolean },
  setup: (props, { slots }) => {
    const opener = { 'aria-controls': 'card-1' }
    return () => [
      slots['activator']?.({ props: opener }),
      props.modelValue && vue.h('div', { id: 'card-1', class: 'v-overlay__content' }, slots['default']?.()),
    ]
  },
})
for (const name of ['ref', 'watch'] as const) vi.stubGlobal(name, vue[name])
afterEach(() => {
  document.body.innerHTML = ''
})

it('a card is closed by Esc at once, whatever its menu does, and gives the keyboard back', async () => {
  const heard = vi.fn()
  window.addEventListener('keydown', heard)
  const isOpen = vue.ref(true)
  const page = mount(
    () =>
      vue.h(
        CardMenu,
        {
          label: 'When',
          modelValue: isOpen.value,
          'onUpdate:modelValue': (open?: boolean) => (isOpen.value = open ?? false),
        },
        {
          opener: ({ opener }: { opener: object }) => vue.h('button', { ...opener, class: 'opens' }, 'When'),
          default: () => vue.h('input', { class: 'day' }),
        },
      ),
    { attachTo: document.body, global: { stubs: { 'v-menu': Menu } } },
  )
  const day = page.find<HTMLInputElement>('.day')
  day.element.focus()
  await day.trigger('keydown', { key: 'Escape' })
  expect(isOpen.value).toBe(false)
  expect(document.activeElement).toBe(page.find('.opens').element)
  expect(heard).not.toHaveBeenCalled()
  window.removeEventListener('keydown', heard)
  page.unmount()
})
