import type { Editor } from '@tiptap/vue-3'

/** Puts a picture in at the caret and chooses it, so that what it shows can be said at once. */
export function insertPicture(editor: Editor | undefined, src: string): void {
  editor?.chain().focus().setImage({ src, alt: '' }).run()
  editor?.state.doc.descendants((node, at) => {
    if (node.type.name === 'image' && node.attrs['src'] === src) editor.commands.setNodeSelection(at)
  })
}
