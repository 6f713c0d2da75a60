/**
 * What stands in a field that came with the page, by its id: somebody, or their browser's list of passwords, may have
 * filled it in before the scripts arrived. To be asked while the field is set up; empty for a field that comes later.
 */
export function typedBeforeHydration(id: string): string {
  if (import.meta.server || !useNuxtApp().isHydrating) return ''
  const field = document.getElementById(id)
  return field instanceof HTMLInputElement ? field.value : ''
}
