import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createAutosave, type AutosaveOptions } from './autosave'
import {
  BrowserDrafts,
  problem,
  REFUSED,
  Refusal,
  Server,
  settled,
  SIGNED_OUT,
  UNREACHED,
} from './testServer'

const PAUSE = 700

const pause = () => vi.advanceTimersByTimeAsync(PAUSE)

function editorOn(server: Server, drafts = new BrowserDrafts(), more: Partial<AutosaveOptions<string>> = {}) {
  const steps: string[] = []
  const autosave = createAutosave<string>({
    value: server.text,
    version: server.version === 0 ? null : server.version,
    pause: PAUSE,
    send: server.send,
    failureOf: error => {
      if (!(error instanceof Refusal)) throw error
      return error.failure
    },
    localDraft: drafts,
    onStep: () => steps.push(autosave.status().kind),
    timers: {
      set: (act, milliseconds) => setTimeout(act, milliseconds),
      clear: timer => clearTimeout(timer as ReturnType<typeof setTimeout>),
    },
    ...more,
  })
  return { ...autosave, steps, drafts }
}

describe('autosave', () => {
  let server: Server
  beforeEach(() => {
    vi.useFakeTimers()
    server = new Server()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  it('keeps at every change and stores at the pause, once', async () => {
    const editor = editorOn(server)
    editor.change('a')
    editor.change('ab')
    expect(editor.drafts.kept).toEqual({ value: 'ab', version: null })
    expect(server.received).toEqual([])
    await pause()
    expect(server.received).toEqual(['ab'])
    expect(editor.status()).toEqual({ kind: 'stored' })
    expect(editor.drafts.kept).toBeNull()
    expect(editor.isUnstored()).toBe(false)
  })

  it('stores what is typed while it saves, on the version just answered', async () => {
    const editor = editorOn(server)
    server.isSlow = true
    editor.change('one')
    await pause()
    editor.change('one two')
    expect(editor.status().kind).toBe('changed')
    await server.answer()
    expect(editor.status().kind).toBe('changed') // what was stored is not what stands here
    expect(editor.drafts.kept).toEqual({ value: 'one two', version: 1 })
    await pause()
    await server.answer()
    expect(server.received).toEqual(['one', 'one two'])
    expect(server.text).toBe('one two')
    expect(editor.status().kind).toBe('stored')
  })

  it('sends the next only when the one before is answered, so that no answer can come out of order', async () => {
    const editor = editorOn(server)
    server.isSlow = true
    editor.change('one')
    await pause()
    editor.change('two')
    await pause()
    editor.change('three')
    await pause()
    await server.answer()
    expect(server.received).toEqual(['one'])
    await server.answer()
    expect(server.received).toEqual(['one', 'three']) // what stands now, once
    expect(editor.version()).toBe(2)
    expect(editor.status().kind).toBe('stored')
  })

  it('overwrites nothing that another tab has stored, and lets one choose either text', async () => {
    const first = editorOn(server)
    const second = editorOn(server, new BrowserDrafts())
    first.change('from the first')
    await pause()
    second.change('from the second')
    await pause()
    expect(server.text).toBe('from the first')
    expect(second.status()).toEqual({ kind: 'conflict', theirs: { value: 'from the first', version: 1 } })
    second.change('from the second, longer')
    await pause()
    expect(second.status().kind).toBe('conflict') // typing on decides nothing
    second.settle('mine')
    await pause()
    expect(server.text).toBe('from the second, longer')

    first.change('first again')
    await pause()
    first.settle('theirs')
    expect(first.value()).toBe('from the second, longer')
    expect(first.status().kind).toBe('stored')
    await pause()
    expect(server.version).toBe(2) // theirs was stored already: nothing is sent
  })

  it('takes a text that is stored already for stored: an answer that was lost is no conflict', async () => {
    const autosave = editorOn(server)
    autosave.change('words')
    await pause()
    server.version++ // as if a request had been stored and its answer lost
    autosave.change('words')
    await pause()
    expect(autosave.status().kind).toBe('stored')
    expect(autosave.version()).toBe(2)
  })

  it('goes on from a text whose answer was lost with what was typed since', async () => {
    const autosave = editorOn(server)
    server.text = 'one'
    server.version = 1
    server.isSlow = true
    autosave.change('one')
    await pause()
    autosave.change('one two')
    server.isSlow = false
    await server.answer()
    await pause()
    await pause()
    expect(server.text).toBe('one two')
    expect(autosave.isUnstored()).toBe(false)
  })

  it('takes what a closed tab had sent for its own, though no answer was ever heard', async () => {
    const drafts = new BrowserDrafts()
    const first = editorOn(server, drafts)
    server.isSlow = true
    first.change('one')
    await pause()
    first.change('one two')
    const gone = drafts.kept // the tab is gone now, and with it the answer
    server.isSlow = false
    await server.answer()
    expect(server.text).toBe('one')
    const second = editorOn(server, new BrowserDrafts({ kept: gone }))
    await second.restore()
    await pause()
    await pause()
    expect(server.text).toBe('one two')
    expect(second.status().kind).toBe('stored')
  })

  it('remembers what it has sent, however often it has to try again', async () => {
    const drafts = new BrowserDrafts()
    const first = editorOn(server, drafts)
    server.isSlow = true
    first.change('one')
    await pause()
    const gone = drafts.kept
    server.isSlow = false
    await server.answer()
    const second = editorOn(server, new BrowserDrafts({ kept: gone }))
    await second.restore()
    server.failing = UNREACHED
    second.change('one two')
    for (let i = 0; i < 12; i++) await second.flush()
    server.failing = null
    await second.flush()
    await pause()
    expect(server.text).toBe('one two')
    expect(second.status().kind).toBe('stored')
  })

  it('drops nothing that another tab keeps under the same name', async () => {
    const storage = { kept: null }
    const first = editorOn(server, new BrowserDrafts(storage))
    const second = editorOn(server, new BrowserDrafts(storage))
    first.change('stored soon')
    second.change('not stored yet')
    await first.flush()
    expect(first.status().kind).toBe('stored')
    expect(second.drafts.kept?.value).toBe('not stored yet')
  })

  it('waits without a connection, tries again later and later, and at once when told', async () => {
    const editor = editorOn(server)
    server.failing = UNREACHED
    editor.change('written on the train')
    await pause()
    expect(editor.status()).toEqual({
      kind: 'kept',
      isInBrowser: true,
      problem: UNREACHED.failure.kind === 'unreached' && problem(0),
    })
    expect(editor.drafts.kept).toMatchObject({ value: 'written on the train', version: null })
    await vi.advanceTimersByTimeAsync(5000)
    expect(server.received).toHaveLength(2)
    await vi.advanceTimersByTimeAsync(5000)
    expect(server.received).toHaveLength(2) // ten seconds the second time
    await vi.advanceTimersByTimeAsync(5000)
    expect(server.received).toHaveLength(3)
    server.failing = null
    await editor.flush()
    expect(server.text).toBe('written on the train')
    expect(editor.drafts.kept).toBeNull()
  })

  it('keeps what is typed when one is signed out, and stores it once one is back', async () => {
    const editor = editorOn(server)
    server.failing = SIGNED_OUT
    editor.change('still here')
    await pause()
    await vi.advanceTimersByTimeAsync(600_000)
    expect(server.received).toHaveLength(1) // nothing is tried behind one's back
    expect(editor.drafts.kept?.value).toBe('still here')
    server.failing = null
    await editor.flush()
    expect(server.text).toBe('still here')
  })

  it('says what is refused, sends it again only when it is changed, and keeps it meanwhile', async () => {
    const editor = editorOn(server)
    server.failing = REFUSED
    editor.change('far too long')
    await pause()
    expect(editor.status()).toEqual({ kind: 'refused', problem: problem(422, 'Too long.') })
    await vi.advanceTimersByTimeAsync(600_000)
    expect(server.received).toHaveLength(1)
    expect(editor.drafts.kept?.value).toBe('far too long')
    server.failing = null
    editor.change('short')
    await pause()
    expect(editor.status().kind).toBe('stored')
  })

  it('sends what is left when the tab is closed, and has kept it in any case', async () => {
    const editor = editorOn(server)
    editor.change('the last words')
    editor.close()
    await settled()
    expect(server.text).toBe('the last words')
  })

  it('brings back what a closed tab has left, and stores it', async () => {
    const drafts = new BrowserDrafts()
    editorOn(server, new BrowserDrafts(drafts.storage)).change('typed in the last instant')
    vi.clearAllTimers() // the browser ends here
    const editor = editorOn(server, drafts)
    await editor.restore()
    expect(editor.value()).toBe('typed in the last instant')
    expect(editor.status().kind).toBe('kept')
    await pause()
    expect(server.text).toBe('typed in the last instant')
    expect(drafts.kept).toBeNull()
  })

  it('does not bring back what was left over what one has begun to type', async () => {
    const drafts = new BrowserDrafts()
    editorOn(server, drafts).change('old')
    const editor = editorOn(server, drafts)
    const restoring = editor.restore()
    editor.change('new')
    await restoring
    expect(editor.value()).toBe('new')
  })

  it('offers both when what was left was begun from an older version', async () => {
    const drafts = new BrowserDrafts()
    server.text = 'one'
    server.version = 1
    editorOn(server, drafts).change('one, and mine')
    server.text = 'one, and theirs'
    server.version = 2
    const editor = editorOn(server, drafts)
    await editor.restore()
    await pause()
    expect(editor.status()).toEqual({ kind: 'conflict', theirs: { value: 'one, and theirs', version: 2 } })
    expect(editor.value()).toBe('one, and mine')
  })

  it('sends nothing while it is held, waits for what is on its way, and goes on when resumed', async () => {
    const editor = editorOn(server)
    server.isSlow = true
    editor.change('a')
    await pause()
    let isQuiet = false
    void editor.hold().then(() => {
      isQuiet = true
    })
    await settled()
    expect(isQuiet).toBe(false)
    await server.answer()
    expect(isQuiet).toBe(true)
    server.isSlow = false
    editor.change('ab')
    await pause()
    expect(server.text).toBe('a')
    editor.resume()
    await pause()
    expect(server.text).toBe('ab')
  })

  it('sends nothing by itself where that is not wanted, and nothing that is nothing', async () => {
    const byHand = editorOn(server, new BrowserDrafts(), { auto: () => false })
    byHand.change('a')
    await vi.advanceTimersByTimeAsync(600_000)
    byHand.close()
    await settled()
    expect(server.received).toEqual([])
    const empty = editorOn(server, new BrowserDrafts(), {
      isWorthSending: (text, at) => text !== '' || at !== null,
    })
    empty.change('')
    await pause()
    expect(server.received).toEqual([])
    expect(empty.status().kind).toBe('stored')
    expect(empty.drafts.kept).toBeNull()
  })

  it('keeps in the browser alone where nothing is sent', async () => {
    const editor = editorOn(server, new BrowserDrafts(), { send: null })
    editor.change('said to nobody yet')
    await vi.advanceTimersByTimeAsync(600_000)
    expect(editor.status()).toEqual({ kind: 'kept', problem: null, isInBrowser: true })
    expect(editor.drafts.kept?.value).toBe('said to nobody yet')
    editor.forget()
    expect(editor.drafts.kept).toBeNull()
  })

  it('joins two texts by itself where nobody has to choose, and stores the one they make', async () => {
    const editor = editorOn(server, new BrowserDrafts(), {
      join: theirs => ({ value: `${theirs.value} and mine`, isDecided: true }),
    })
    editor.change('mine')
    server.text = 'theirs'
    server.version = 4
    await editor.flush()
    expect([server.text, server.version]).toEqual(['theirs and mine', 5])
    expect(editor.status().kind).toBe('stored')
  })

  it('puts a text joined of two onto the version of the other', async () => {
    const editor = editorOn(server)
    editor.change('mine')
    server.text = 'theirs'
    server.version = 4
    await pause()
    editor.rebase('mine and theirs', 4)
    await pause()
    expect([server.text, server.version]).toEqual(['mine and theirs', 5])
  })

  it('loses no word, whatever happens in whatever order', async () => {
    const act = fc.oneof(
      fc.string({ maxLength: 5 }).map(text => ({ kind: 'type' as const, text })),
      fc
        .constantFrom('pause', 'offline', 'signedOut', 'online', 'elsewhere', 'mine', 'reopen')
        .map(kind => ({ kind })),
    )
    await fc.assert(
      fc.asyncProperty(fc.array(act, { maxLength: 25 }), async acts => {
        server = new Server()
        let drafts = new BrowserDrafts()
        let editor = editorOn(server, drafts)
        let typed: string | null = null // the last words typed, until they are known to be stored
        for (const a of acts) {
          if (a.kind === 'type') {
            typed = `${(a as { text: string }).text}!`
            editor.change(typed)
          }
          if (a.kind === 'pause') await pause()
          if (a.kind === 'offline') server.failing = UNREACHED
          if (a.kind === 'signedOut') server.failing = SIGNED_OUT
          if (a.kind === 'online') server.failing = null
          if (a.kind === 'elsewhere' && typed === null) {
            server.text = 'elsewhere'
            server.version++
            editor.reset(server.text, server.version)
          } else if (a.kind === 'elsewhere') server.version++
          if (a.kind === 'mine') editor.settle('mine')
          if (a.kind === 'reopen') {
            vi.clearAllTimers() // the old tab is gone without a word
            drafts = new BrowserDrafts(drafts.storage)
            editor = editorOn(server, drafts)
            await editor.restore()
          }
          if (typed !== null) expect([editor.value(), server.text, drafts.kept?.value]).toContain(typed)
          if (typed !== null && server.text !== typed) expect(drafts.kept?.value).toBe(typed)
        }
        server.failing = null
        editor.settle('mine')
        await editor.flush()
        if (editor.status().kind === 'conflict') {
          editor.settle('mine')
          await editor.flush()
        }
        if (typed !== null) expect(server.text).toBe(typed)
      }),
      { numRuns: 300 },
    )
  })
})
