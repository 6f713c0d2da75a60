// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, nextTick, ref, type Ref } from 'vue'
import { pageKeys } from './keyList'
import type { OwnKeys } from './ownKeys'
import { useKeys } from './useKeys'

const LETTERS = [...'abcdefghijklmnopqrstuvwxyzABCXYZ0123456789[]?/'].filter(key => key !== '?')
const OTHERS = ['ArrowUp', 'ArrowDown', 'Enter', 'Ctrl+Enter']

describe('keys of a page', () => {
  let done: string[]
  let letters: Ref<boolean>
  let own: Ref<OwnKeys>
  let page: ReturnType<typeof mountPage>

  function mountPage() {
    const keys = [...LETTERS, ...OTHERS].map(name => ({
      ...{ keys: name, does: `does ${name}` },
      run: () => void done.push(name),
    }))
    return mount(
      defineComponent({
        setup: () => useKeys(() => keys),
        template: '<input id="field" /><div id="text" contenteditable="true"></div><p id="words"></p>',
      }),
      { attachTo: document.body },
    )
  }
  const press = (key: string, at: EventTarget = document.body, held: KeyboardEventInit = {}) =>
    at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...held }))
  const pressAll = (at?: EventTarget) => {
    for (const key of LETTERS) press(key, at)
    for (const name of OTHERS) press(name.replace('Ctrl+', ''), at, { ctrlKey: name.startsWith('Ctrl+') })
  }
  /** Something above the page, as Vuetify draws it. */
  function cover(kind: string) {
    const overlay = document.createElement('div')
    overlay.className = `${kind} v-overlay--active`
    document.body.append(overlay)
    return overlay
  }

  beforeEach(() => {
    done = []
    letters = ref(true)
    own = ref({})
    vi.stubGlobal('useCookie', (_: string, more: { default: () => unknown }) => ref(more.default()))
    vi.stubGlobal('useNuxtApp', () => ({ runWithContext: (act: () => void) => act() }))
    vi.stubGlobal('useState', (key: string) => (key === 'kept:own_keys' ? own : letters))
    page = mountPage()
  })
  afterEach(() => {
    page.unmount()
    vi.unstubAllGlobals()
    document.body.replaceChildren()
  })

  it('act, each once, and are known to the list of keys while the page is there', async () => {
    pressAll()
    expect(done).toEqual([...LETTERS, ...OTHERS])
    expect(pageKeys.value?.().map(k => k.keys)).toEqual([...LETTERS, ...OTHERS])
    page.unmount()
    await nextTick()
    expect(pageKeys.value).toBeNull()
    pressAll()
    expect(done).toHaveLength(LETTERS.length + OTHERS.length)
  })

  it.each(['v-dialog', 'v-menu'])(
    'rest, all of them, behind an open %s, and act again once it is closed',
    kind => {
      const overlay = cover(kind)
      pressAll()
      expect(done).toEqual([])
      overlay.classList.remove('v-overlay--active')
      press('a')
      expect(done).toEqual(['a'])
    },
  )

  it('do not mind a tooltip', () => {
    cover('v-tooltip')
    press('a')
    expect(done).toEqual(['a'])
  })

  it.each(['field', 'text'])('rest while one writes into #%s, but for those with Ctrl', id => {
    pressAll(document.getElementById(id)!)
    expect(done).toEqual(['Ctrl+Enter'])
  })

  it('of a single letter or sign rest where they are switched off; the others act', () => {
    letters.value = false
    pressAll()
    expect(done).toEqual(OTHERS)
    letters.value = true
    press('a')
    expect(done).toEqual([...OTHERS, 'a'])
  })

  it('that somebody has changed act by their new sign, and those switched off not at all', () => {
    own.value = { a: 'b', b: 'a', c: '' }
    for (const key of 'abcd') press(key)
    expect(done).toEqual(['b', 'a', 'd'])
  })

  it('rest while Alt is held: that is the browser’s', () => {
    press('a', document.body, { altKey: true })
    expect(done).toEqual([])
  })
})
