// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import ScoreLadder from './ScoreLadder.vue'

const level = (points: number) => ({ points, title: `Level ${points}`, descriptor: '' })
const ladder = (max: number, value?: number) =>
  mount(ScoreLadder, {
    props: { label: 'Reasoning', max, levels: [level(0), level(1500), level(4000)], value, disabled: false },
  })
const names = (wrapper: ReturnType<typeof ladder>) => wrapper.findAll('button').map(b => b.text())

it('a criterion of many points has its levels as steps, and a field for what is between them', async () => {
  const wrapper = ladder(4000, 2000)
  expect(names(wrapper)).toEqual(['0', '15', '40'])
  await wrapper.findAll('button')[1]!.trigger('click')
  await wrapper.find('[role=radiogroup]').trigger('keydown', { key: 'ArrowRight' })
  await wrapper.find('[role=radiogroup]').trigger('keydown', { key: 'ArrowLeft' })
  await wrapper.find('input').setValue('33,5')
  expect(wrapper.emitted('set')!.map(([points]) => points)).toEqual([1500, 4000, 1500, 3350])
  await wrapper.find('input').setValue('41')
  expect(wrapper.find('input').attributes('aria-invalid')).toBe('true')
  expect(wrapper.emitted('set')!.map(([points]) => points)).not.toContain(4100)
})

it('a criterion of few points has a step for each half, and one of them is reached by Tab', () => {
  const wrapper = ladder(200)
  expect(names(wrapper)).toEqual(['0', '·', '1', '·', '2'])
  expect(wrapper.findAll('button').filter(b => b.attributes('tabindex') === '0')).toHaveLength(1)
  expect(wrapper.find('input').exists()).toBe(false)
})
