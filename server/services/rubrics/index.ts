// Rubrics and their versions. This is what other areas may use of it.
export { loadRubric, loadRubrics } from './loadRubrics'
export { draftOf, writeCriteria } from './rubrics'
export { addStarterRubrics } from './starterRubrics'
