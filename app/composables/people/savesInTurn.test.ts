import { beforeEach, describe, expect, it } from 'vitest'
import { savesInTurn } from './savesInTurn'

const page = {
  shown: [] as readonly string[],
  stored: [] as readonly string[],
  said: [] as string[],
  answers: [] as ((isTaken: boolean) => void)[],
  beforeShown: () => {},
}
const save = () =>
  savesInTurn<readonly string[]>({
    show: next => (page.shown = next),
    store: next =>
      new Promise(resolve =>
        page.answers.push(isTaken => {
          if (isTaken) page.stored = next
          resolve(isTaken)
        }),
      ),
    showStored: async isStill => {
      const { stored } = page
      page.beforeShown()
      if (isStill()) page.shown = stored
    },
  })
const settled = () => new Promise(resolve => setTimeout(resolve))

describe('saves that follow one another', () => {
  beforeEach(() =>
    Object.assign(page, { shown: [], stored: [], said: [], answers: [], beforeShown: () => {} }),
  )

  it('keep on the page what was done while an earlier one was on its way', async () => {
    const saving = save()
    void saving(['liv'])
    await settled()
    void saving([...page.shown, 'oona'])
    page.answers[0]!(true)
    await settled()
    expect(page.shown).toEqual(['liv', 'oona'])
    void saving([...page.shown, 'nico'])
    page.answers[1]!(true)
    await settled()
    page.answers[2]!(true)
    await settled()
    expect([page.shown, page.stored]).toEqual([page.stored, ['liv', 'oona', 'nico']])
  })

  it('show what is stored at last, unless something was done while it was fetched', async () => {
    const saving = save()
    page.beforeShown = () => {
      page.beforeShown = () => {}
      void saving(['liv', 'oona'])
    }
    void saving(['liv'])
    await settled()
    page.answers[0]!(true)
    await settled()
    expect(page.shown).toEqual(['liv', 'oona'])
  })

  it('are not sent on top of one that was refused; what is stored is shown, and the next is sent again', async () => {
    const saving = save()
    void saving(['liv'], () => page.said.push('liv'))
    void saving(['liv', 'oona'], () => page.said.push('oona'))
    await settled()
    page.answers[0]!(false)
    await settled()
    expect([page.answers.length, page.shown, page.said]).toEqual([1, [], []])
    void saving(['nico'], () => page.said.push('nico'))
    await settled()
    page.answers[1]!(true)
    await settled()
    expect([page.stored, page.said]).toEqual([['nico'], ['nico']])
  })
})
