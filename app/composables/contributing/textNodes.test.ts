// @vitest-environment happy-dom
import { Editor, type Extensions } from '@tiptap/core'
import { afterEach, describe, expect, it } from 'vitest'
import { isSendingKey, textNodes } from './textNodes'

let editor: Editor
const open = (content: string, extensions: Extensions = [textNodes({})]) =>
  (editor = new Editor({
    element: document.createElement('div'),
    extensions,
    content,
    editorProps: { handleKeyDown: (_view, event) => isSendingKey(event) },
  }))
afterEach(() => editor.destroy())

describe('a text that is written', () => {
  it('ends a link where its words end', () => {
    open('<p><a href="https://harbour.example">the quay</a></p>')
    editor.commands.setTextSelection(editor.state.doc.content.size - 1)
    editor.view.dispatch(editor.state.tr.insertText(' and more'))
    expect(editor.getJSON().content![0]!.content).toMatchObject([
      { text: 'the quay', marks: [{ type: 'link' }] },
      { text: ' and more' },
    ])
    expect(editor.getJSON().content![0]!.content![1]!.marks).toBeUndefined()
  })

  it('gets no empty line by the keys that send it', () => {
    open('<p>words</p>')
    editor.commands.focus('end')
    for (const key of [{ ctrlKey: true }, { metaKey: true }])
      editor.view.someProp('handleKeyDown', handle =>
        handle(editor.view, new KeyboardEvent('keydown', { key: 'Enter', ...key })),
      )
    expect(editor.getText()).toBe('words')
  })
})
