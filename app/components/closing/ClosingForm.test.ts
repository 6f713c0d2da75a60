// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import type { ClosingView } from '#shared/closing/closing'
import ClosingForm from './ClosingForm.vue'

const SHELF = 'jovrel:closing:activity:1'
const view = {
  activity: { id: 'activity', title: 'Who paid for the breakwater?', kind: 'discussion' },
  mine: null,
  round: {
    named: false,
    questions: [
      { id: 'pace', kind: 'scale', text: 'The pace was', low: 'slow', high: 'fast', steps: 5 },
      { id: 'keep', kind: 'text', text: 'What should stay?' },
    ],
  },
} as unknown as ClosingView // the parts the form reads

const open = (more: object = {}) =>
  mount(ClosingForm, {
    props: { view, busy: false, problem: null, ...more },
    global: { stubs: { 'v-btn': { template: '<button type="submit"><slot /></button>' } } },
  })

describe('the closing questions as a student answers them', () => {
  beforeEach(() => localStorage.clear())

  it('keeps what is answered in this browser, and hands in all of it', async () => {
    const form = open()
    await form.find('input[type=radio][value="4"]').trigger('click')
    await form.find('textarea').setValue('The walks.')
    expect(JSON.parse(localStorage.getItem(SHELF)!)).toEqual({ pace: 4, keep: 'The walks.' })
    await form.find('form').trigger('submit')
    expect(form.emitted('answer')).toEqual([[{ pace: 4, keep: 'The walks.' }]])
  })

  it('brings back what was answered before the tab was closed', async () => {
    localStorage.setItem(SHELF, JSON.stringify({ keep: 'The maps.' }))
    const form = open()
    await new Promise(resolve => setTimeout(resolve))
    expect((form.find('textarea').element as HTMLTextAreaElement).value).toBe('The maps.')
  })

  it('takes a step back when it is chosen again', async () => {
    const form = open()
    await form.find('input[type=radio][value="4"]').trigger('click')
    await form.find('input[type=radio][value="4"]').trigger('click')
    await form.find('form').trigger('submit')
    expect(form.emitted('answer')).toEqual([[{}]])
  })

  it('keeps nothing of a trial', async () => {
    const form = open({ trial: true })
    await form.find('textarea').setValue('only trying')
    expect(localStorage.length).toBe(0)
  })
})
