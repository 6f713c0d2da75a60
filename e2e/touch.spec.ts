import { expect, open, test } from './fixtures'

test('a finger that scrolls over a bar of the term plan moves nothing', async ({ as, world }) => {
  const page = await as('ines')
  await open(page, `/seminars/${world.seminar.id}/plan`)
  const planned = () => world.db.query.phases.findMany({ orderBy: (p, { asc }) => asc(p.id) })
  const before = await planned()
  const bar = page.locator('.bar.movable').first()
  const box = (await bar.boundingBox())!
  const finger = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x: number) =>
    finger.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x, y: box.y + box.height / 2 }],
    })
  const from = box.x + box.width / 2
  await touch('touchStart', from)
  for (let by = 10; by <= 100; by += 10) {
    await touch('touchMove', from - by)
    await expect(bar).not.toHaveClass(/held/)
  }
  await touch('touchEnd', from - 100)
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveCount(0)
  expect(await planned()).toEqual(before)
})
