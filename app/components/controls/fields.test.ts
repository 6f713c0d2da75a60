// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { h, ref } from 'vue'
import LineInput from './LineInput.vue'
import LinesInput from './LinesInput.vue'
import PickList from './PickList.vue'
import PlainCheckbox from './PlainCheckbox.vue'
import PlainRadio from './PlainRadio.vue'

const options = { default: () => [h('option', { value: 1 }, 'one'), h('option', { value: 2 }, 'two')] }

describe('fields', () => {
  it('give what is typed as text, and as a number where they are of numbers', async () => {
    const line = mount(LineInput, { props: { modelValue: 'a' } })
    await line.find('input').setValue('ab')
    expect(line.emitted('update:modelValue')).toEqual([['ab']])
    const number = mount(LineInput, { props: { modelValue: 3 }, attrs: { type: 'number', min: 0 } })
    expect(number.element.value).toBe('3')
    await number.find('input').setValue('12')
    expect(number.emitted('update:modelValue')).toEqual([[12]])
    const lines = mount(LinesInput, { props: { modelValue: 'a' } })
    await lines.find('textarea').setValue('a\nb')
    expect(lines.emitted('update:modelValue')).toEqual([['a\nb']])
  })
  it('leave a given value to their page, which hears the field’s own events', async () => {
    const heard = vi.fn()
    for (const field of [LineInput, LinesInput]) {
      const given = mount(field, { attrs: { value: 'stored', onChange: heard } })
      given.element.value = 'typed'
      await given.trigger('change')
      expect(given.emitted('update:modelValue')).toBeUndefined()
      expect(given.element.value).toBe('typed')
    }
    expect(heard).toHaveBeenCalledTimes(2)
  })
  it('show a value that was changed elsewhere', async () => {
    const text = ref('one')
    const line = mount(() => h(LineInput, { value: text.value }))
    text.value = 'two'
    await line.vm.$nextTick()
    expect(line.find('input').element.value).toBe('two')
  })
  it('are focused and chosen by their page', () => {
    const line = mount(LineInput, { props: { modelValue: 'abc' }, attachTo: document.body })
    line.vm.focus()
    line.vm.select()
    expect(document.activeElement).toBe(line.element)
    expect(line.element.selectionEnd).toBe(3)
    line.unmount()
  })
  it('lists give the value itself, not its words', async () => {
    const list = mount(PickList, { props: { modelValue: 1 }, slots: options })
    expect(list.element.selectedIndex).toBe(0)
    await list.findAll('option')[1]!.setValue(true)
    expect(list.emitted('update:modelValue')).toEqual([[2]])
    const given = mount(PickList, { attrs: { value: '2' }, slots: options })
    expect(given.element.selectedIndex).toBe(1)
  })
  it('lists with neither show what they offer, and their page hears what is chosen', async () => {
    const heard = vi.fn()
    const offer = {
      default: () => [h('option', { value: '' }, 'add …'), h('option', { value: 'a' }, 'one')],
    }
    const list = mount(PickList, { attrs: { onChange: heard }, slots: offer })
    expect((list.element as HTMLSelectElement).selectedIndex).toBe(0)
    await list.find('select').setValue('a')
    expect(heard).toHaveBeenCalledOnce()
  })
  it('ticks and dots are set by v-model or by their page', async () => {
    const tick = mount(PlainCheckbox, { props: { modelValue: false } })
    await tick.find('input').setValue(true)
    expect(tick.emitted('update:modelValue')).toEqual([[true]])
    expect(mount(PlainCheckbox, { attrs: { checked: true } }).element.checked).toBe(true)
    const dot = mount(PlainRadio, { props: { modelValue: 'a' }, attrs: { value: 'b' } })
    expect(dot.element.checked).toBe(false)
    await dot.find('input').setValue(true)
    expect(dot.emitted('update:modelValue')).toEqual([['b']])
    expect(mount(PlainRadio, { attrs: { checked: true, value: 'b' } }).element.checked).toBe(true)
  })
})
