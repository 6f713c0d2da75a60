// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import SavedMark from './SavedMark.vue'

const show = (
  state: 'saved' | 'changed' | 'saving' | 'refused' | 'kept here' | 'clash',
  problem: string | null = null,
) => mount(SavedMark, { props: { state, problem, joined: null } })

describe('where one’s changes are', () => {
  it.each([
    ['saved', 'saved'],
    ['changed', 'changed …'],
    ['saving', 'saving …'],
    ['clash', 'two texts'],
  ] as const)('says of %s: %s, with nothing to press', (state, words) => {
    const mark = show(state)
    expect(mark.text()).toBe(words)
    expect(mark.find('button').exists()).toBe(false)
  })

  it('says what was refused, and lets one try again', async () => {
    const mark = show('refused', 'Give it a title.')
    expect(mark.get('[role=alert]').text()).toBe('Give it a title.')
    await mark.get('button').trigger('click')
    expect(mark.emitted('retry')).toHaveLength(1)
  })

  it('lets one try again what this browser keeps', () => {
    expect(show('kept here').get('button').text()).toBe('Try again')
  })
})
