// @vitest-environment happy-dom
import { nextTick } from 'vue'
import { beforeEach, describe, expect, it } from 'vitest'
import { setOwner } from '~/autosave/ownedKey'
import { withSetup } from '~/testing/withSetup'
import { useHeatChoices } from './useHeatChoices'

const opened = () => withSetup(() => useHeatChoices('activity'))

describe('what is chosen to show of the talk on a text', () => {
  beforeEach(() => {
    localStorage.clear()
    setOwner('ines')
  })

  it('is there again as it was left, for whoever chose it alone', async () => {
    const first = opened()
    first.result.order.value = 'text'
    first.result.named.value = false
    first.result.left.add('10-20')
    first.result.added.add('30-40')
    await nextTick()
    first.result.left.delete('10-20')
    first.result.left.add('50-60')
    await nextTick()
    first.unmount()
    const again = opened().result
    expect([again.order.value, again.named.value, [...again.left], [...again.added]]).toEqual([
      'text',
      false,
      ['50-60'],
      ['30-40'],
    ])
    setOwner('rasmus')
    expect([...opened().result.left]).toEqual([])
  })

  it('is the usual where what was kept cannot be read', () => {
    localStorage.setItem('jovrel:heat:activity@ines', '{"order":"sideways"}')
    const { order, named } = opened().result
    expect([order.value, named.value]).toEqual(['heat', true])
  })
})
