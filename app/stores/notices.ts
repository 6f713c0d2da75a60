import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'

export interface Notice {
  readonly text: string
  readonly act?: { readonly label: string; readonly run: () => void | Promise<void> }
  readonly tone?: 'said' | 'problem'
}

/** What was just done, with the way back. One at a time: the newest. */
export const useNotices = readOnlyState(
  defineStore('notices', () => {
    const current = shallowRef<Notice | null>(null)
    const count = ref(0) // how many have been said: each has its time for itself
    const say = (text: string, act?: Notice['act']) => {
      current.value = { text, act }
      count.value++
    }
    const warn = (error: unknown) => {
      current.value = { text: error instanceof Error ? error.message : String(error), tone: 'problem' }
      count.value++
    }
    const close = () => {
      current.value = null
    }
    return { current, count, say, warn, close }
  }),
)
