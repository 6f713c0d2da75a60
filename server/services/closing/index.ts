// Questions after an activity. This is what other areas may use of it.
export { closingFor, openClosing } from './ownClosing'
