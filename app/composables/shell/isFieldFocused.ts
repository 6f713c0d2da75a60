/** Whether somebody's caret is in a field already: an editor that arrives late must not take it from there. */
export function isFieldFocused(): boolean {
  const at = document.activeElement
  return at instanceof HTMLElement && (at.matches('input, textarea, select') || at.isContentEditable)
}
