// Who speaks, to whom and how much. This is what other areas may use of it.
export { keepCounts } from './textMeasures'
