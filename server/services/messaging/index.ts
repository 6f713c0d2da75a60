// What people are told, and what they write to one another. This is what other areas may use of it.
export { isFresh, threadsOf } from './messageThreads'
