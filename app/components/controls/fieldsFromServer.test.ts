import { describe, expect, it } from 'vitest'
import { createSSRApp, h } from 'vue'
import { renderToString } from 'vue/server-renderer'
import LineInput from './LineInput.vue'
import PickList from './PickList.vue'

const sent = (component: object, props: object, slot?: () => unknown[]) =>
  renderToString(createSSRApp({ render: () => h(component, props, slot && { default: slot }) }))
const groups = () => [
  h('option', { value: '' }, 'none'),
  h('optgroup', { label: 'Numbers' }, [h('option', { value: 1 }, 'one'), h('option', { value: 2 }, 'two')]),
  h('option', 'plain'),
]

describe('fields as the server sends them', () => {
  it('hold their value', async () => {
    expect(await sent(LineInput, { modelValue: 'a & b' })).toContain('value="a &amp; b"')
    expect(await sent(LineInput, { value: 'stored' })).toContain('value="stored"')
  })
  it.each([
    [{ modelValue: 2 }, '<option value="2" selected>two</option>'],
    [{ value: '2' }, '<option value="2" selected>two</option>'],
    [{ modelValue: null }, '<option value selected>none</option>'],
    [{ modelValue: 'plain' }, '<option selected>plain</option>'],
  ])('a list has one option chosen: %o', async (props, option) => {
    const html = await sent(PickList, props, groups)
    expect(html).toContain(option)
    expect(html.match(/ selected/g)).toHaveLength(1)
  })
})
