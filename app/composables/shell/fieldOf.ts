/** What stands in the field an event comes from. */
export const textOf = (event: Event): string =>
  (event.target as HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement).value // it comes from a field

/** The figure in the field an event comes from; 0 where there is none. */
export const numberOf = (event: Event): number => Number(textOf(event)) || 0
