import { afterAll } from 'vitest'

const { parse, stringify } = JSON

// a module that replaces what is built in would change the tests of the files that follow in the same worker
afterAll(() => {
  if (JSON.parse !== parse || JSON.stringify !== stringify)
    throw new Error(
      'builtIns: a module loaded by this file replaces JSON; load it in a thread, a process or a file that runs alone',
    )
})
