import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'

/** Runs a composable inside a component, as a page does. @returns what it gives, and how to take the component down */
export function withSetup<R>(use: () => R): { readonly result: R; readonly unmount: () => void } {
  let result: R | undefined
  const wrapper = mount(
    {
      setup() {
        result = use()
        return () => null
      },
    },
    { global: { plugins: [createPinia()] } },
  )
  return { result: result!, unmount: () => wrapper.unmount() }
}
