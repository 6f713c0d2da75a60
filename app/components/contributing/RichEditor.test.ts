// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import RichEditor from './RichEditor.vue'

enableAutoUnmount(afterEach)
afterEach(() => document.body.replaceChildren())

const doc = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Stones' }] }] }

async function openEditor(autofocus: boolean) {
  const editor = mount(RichEditor, {
    props: { doc, label: 'Your entry', autofocus },
    attachTo: document.body,
    global: { stubs: { 'v-btn': true, EditorMore: true } },
  })
  await flushPromises()
  await vi.waitFor(() => expect(editor.find('[role=textbox]').exists()).toBe(true))
  await new Promise<void>(resolve => {
    setTimeout(resolve) // the editor says that it is there in the turn after its element is
  })
  return editor.get('[role=textbox]').element
}

describe('where the caret is when an editor has arrived', () => {
  it('is in the text, when nobody writes elsewhere', async () => {
    const text = await openEditor(true)
    expect(document.activeElement).toBe(text)
  })

  it('stays in the title that somebody has begun in the meantime', async () => {
    const title = document.body.appendChild(document.createElement('input'))
    title.focus()
    await openEditor(true)
    expect(document.activeElement).toBe(title)
  })

  it('stays where it was, when the editor does not ask for it', async () => {
    await openEditor(false)
    expect(document.activeElement).toBe(document.body)
  })
})
