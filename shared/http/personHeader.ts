/** The header in which a page says whose it is, so that nothing of it is done in another's name. */
export const PERSON_HEADER = 'jovrel-person'
