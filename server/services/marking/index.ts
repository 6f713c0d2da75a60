// Marks, letters and what is calculated from them. This is what other areas may use of it.
export { ownLetters } from './letters'
export { storePoints } from './storePoints'
