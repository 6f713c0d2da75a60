export { capital } from './capital'
export { inWords } from './inWords'
export { listed } from './listed'
export { plural } from './plural'
