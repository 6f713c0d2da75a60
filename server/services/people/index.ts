// People of seminars, their names and what they may be told. This is what other areas may use of it.
export { forgetInAccessLog } from './accessLog'
export { authorView, namesOf } from './nameView'
export { sortedBreaks } from './seminars'
export { isRunning, isSpeaking, silenceRestored } from './silence'
export { type Participant, type Student, countedStudents, practiceStudents } from './students'
