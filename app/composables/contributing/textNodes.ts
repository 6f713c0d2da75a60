import StarterKit, { type StarterKitOptions } from '@tiptap/starter-kit'

/** What every text can hold. A link ends where its words end: what is typed after it is plain. */
export const textNodes = (options: Partial<StarterKitOptions>) =>
  StarterKit.extend({
    addExtensions() {
      return (this.parent?.() ?? []).map(extension =>
        extension.name === 'link' ? extension.extend({ inclusive: false }) : extension,
      )
    },
  }).configure(options)

/** Keys that send what is written: they must not leave an empty line in it as well. */
export const isSendingKey = (event: KeyboardEvent): boolean =>
  event.key === 'Enter' && (event.ctrlKey || event.metaKey)
