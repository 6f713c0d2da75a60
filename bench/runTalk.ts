// npm run bench -- talk: how long the first screen of a long talk takes, against the bare SQL for its rows.
import { testWorld } from '#server/testing/world'
import { fillLargeTalk, measureFirstScreen } from './talk'

const world = await testWorld({ own: true })
try {
  await fillLargeTalk(world)
  const { route, bare } = await measureFirstScreen(world)
  console.log('| what | measured |\n| --- | --- |')
  console.log(
    `| talk of 5,000 posts by 300 people: its first screen from the data route against the bare SQL for the same rows (ratio) | ${(route / bare).toFixed(1)} (${route.toFixed(0)} ms against ${bare.toFixed(0)} ms) |`,
  )
} finally {
  await world.close()
}
