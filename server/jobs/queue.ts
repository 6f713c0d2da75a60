import { logError, logSeldom } from '#server/log'
import PgBoss from 'pg-boss'
import { clearLimits } from '#server/access/limits'
import type { Database } from '#server/database/client'
import { useDatabase } from '#server/database/connection'
import { now } from '#server/clock'
import { clearOrphans } from '#server/services/files/orphans'
import { clearUnused } from '#server/services/keeping/clearUnused'
import { sendWaiting } from '#server/mail/mails'
import { isMailroom, useMailroom } from '#server/mail/mailServer'
import { startMailroom } from '#server/mail/mailroom'
import { mailDailyNotices } from '#server/services/messaging/notices'
import { sendByRules } from '#server/services/messaging/rules'
import { notifyOfMessages } from '#server/services/messaging/writeTo'
import { clearAccessLog } from '#server/services/people/accessLog'
import { returnDue, notifyOfReturn } from '#server/services/marking/returnMark'
import { dealDue } from '#server/kinds/review/deal'
import { releaseDue } from '#server/services/marking/peers/moderate'
import { notifyOfClosing } from '#server/services/closing/closingSurveys'
import { showDue } from '#server/services/contributing/writing/postContribution'
import { publishDue } from '#server/services/composing/publish'
import { keepCounts } from '#server/services/voices/textMeasures'
import { keepDue } from '#server/services/standing/keepStandings'
import type { DueTask } from '#shared/people/dueFailures'

const LOOK_EVERY = 1000 // milliseconds
/** What is looked for every minute, each in a queue of its own: one that takes long or fails holds no other up. */
const EVERY_MINUTE: Readonly<Record<DueTask, (db: Database, now: Date) => Promise<number>>> = {
  publish: publishDue,
  show: showDue,
  deal: dealDue,
  release: releaseDue,
  return: returnDue,
  tellOfReturn: notifyOfReturn,
  tellOfClosing: notifyOfClosing,
  writeByRule: sendByRules,
  tellOfMessage: notifyOfMessages,
  judge: keepDue,
}
/** What is done once a day, each in a queue of its own. Limits, logs and files are old by real time. */
const EVERY_DAY: Readonly<Record<string, (db: Database, now: Date) => Promise<number>>> = {
  dailyNotices: mailDailyNotices,
  clearLimits: db => clearLimits(db, new Date()),
  clearAccessLog: db => clearAccessLog(db, new Date()),
  clearOrphans: db => clearOrphans(db, new Date()),
  clearUnused: db => clearUnused(db, new Date()),
  countTexts: db => keepCounts(db),
}
const LOOK_FOR_DUE = 5 // seconds between two looks into a queue
const queueOf = (task: string) => `due-${task}`
/** Makes the queue's tables, so that the first process need not wait for them. */
export async function prepareQueue(url: string): Promise<void> {
  const boss = new PgBoss({ connectionString: url, max: 1, supervise: false, schedule: false })
  await boss.start()
  await boss.stop({ graceful: false, wait: true })
}

/** Starts this process's share of the work that nobody waits for: mail, what opens at its time, one mail a day. */
export async function startJobs(url: string): Promise<() => Promise<void>> {
  const db = useDatabase('jobs')
  const boss = new PgBoss({ connectionString: url, max: 2 })
  boss.on('error', error => logError('queue', error))
  await boss.start()
  const mailroom = isMailroom() ? await startMailroom(db) : null
  if (mailroom) useMailroom(mailroom.port)

  for (const [task, doDue] of Object.entries(EVERY_MINUTE)) {
    // a minute that is still being worked on is not begun a second time
    await boss.createQueue(queueOf(task), { name: queueOf(task), policy: 'stately', retryLimit: 0 })
    await boss.work(queueOf(task), { pollingIntervalSeconds: LOOK_FOR_DUE }, async () => {
      await doDue(db, now())
    })
  }
  for (const [task, act] of Object.entries(EVERY_DAY)) {
    await boss.createQueue(task, {
      name: task,
      policy: 'stately',
      retryLimit: 3,
      retryDelay: 600,
      retryBackoff: true,
    })
    await boss.work(task, async () => {
      try {
        await act(db, now())
      } catch (error) {
        logError(task, error) // it is tried again, and the others go on
        throw error
      }
    })
    await boss.schedule(task, '0 6 * * *')
  }
  await boss.unschedule('everyMinute') // of an earlier release
  for (const task of Object.keys(EVERY_MINUTE)) await boss.schedule(queueOf(task), '* * * * *')

  const mail = everySecond(isStopping => sendWaiting(db, isStopping))
  return async () => {
    await mail.stop()
    await boss.stop({ graceful: true, timeout: 3000 })
    await mailroom?.stop()
  }
}

/** Does something a second after it was done last, again and again; whatever fails is tried at the next turn. */
function everySecond(act: (isStopping: () => boolean) => Promise<unknown>): { stop: () => Promise<void> } {
  let isStopping = false
  let timer: NodeJS.Timeout | undefined
  const turn = async (): Promise<void> => {
    try {
      await act(() => isStopping)
    } catch (error) {
      logSeldom('mail', error)
    }
    if (!isStopping) timer = setTimeout(() => (going = turn()), LOOK_EVERY)
  }
  let going = turn()
  return {
    stop: async () => {
      isStopping = true
      clearTimeout(timer)
      await going
    },
  }
}
