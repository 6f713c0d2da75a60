import { v7 } from 'uuid'
import { wordsIn } from '#core/messaging/draft'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'

type When = readonly [week: number, weekday: number, time: string]
interface Talk {
  readonly to: string
  readonly by?: string
  readonly about?: string
  readonly subject: string
  readonly said: ReadonlyArray<readonly [who: 'staff' | 'student', when: When, text: string]>
}

const talks: readonly Talk[] = [
  {
    to: 'wanjiru',
    subject: 'Your question about the customs house',
    said: [
      [
        'staff',
        [3, 4, '11:05'],
        'Dear Wanjiru,\n\nyou asked in the margin whether the customs house was the council’s or the king’s. Both, and that is the point: the building was the council’s, the lead seals in it were the king’s, and whoever held the key on a given morning decided which. Look at the quarrel over the key of 1598 in the walls reading.\n\nInes',
      ],
      [
        'student',
        [3, 4, '19:40'],
        'Thank you. So the seal is the thing to follow, not the house. I will try that for my page.',
      ],
      ['staff', [3, 5, '09:15'], 'Exactly that. Tell me what you find.'],
    ],
  },
  {
    to: 'oona',
    by: 'henrik',
    about: 'tollroll',
    subject: 'About “Reading the toll roll”',
    said: [
      [
        'staff',
        [4, 2, '14:30'],
        'Dear Oona,\n\nyour notes stop on the second page. If it was the hand: the transcription I put beside it today goes on to page six.\n\nHenrik',
      ],
      ['student', [4, 2, '21:10'], 'It was the hand. With the transcription I can finish it tonight.'],
    ],
  },
  {
    to: 'anselm',
    about: 'breakwater',
    subject: 'About “Who paid for the breakwater?”',
    said: [
      [
        'staff',
        [6, 1, '16:20'],
        'Dear Anselm,\n\nI have not heard from you in the breakwater discussion, and I know from your notebook that you have something to say about the petition. It has closed, but I would rather have it late than not at all.\n\nIs something in the way? Answer here, a line is enough.\n\nInes',
      ],
      [
        'student',
        [6, 2, '22:45'],
        'I read everything and then all I had was said. I will write about the ballast carriers tonight, if late is all right.',
      ],
    ],
  },
]

/** What those who teach and single students have written to each other, and a standing rule that is still off. */
export async function demoMessages(
  db: Database,
  seminarId: string,
  enrolment: ReadonlyMap<string, string>,
  activity: ReadonlyMap<string, string>,
  at: (when: When) => Date,
): Promise<void> {
  for (const talk of talks) {
    const [studentId, staffId] = [enrolment.get(talk.to)!, enrolment.get(talk.by ?? 'ines')!]
    const times = talk.said.map(([, when]) => at(when))
    const [first, last] = [times[0]!, times.at(-1)!]
    const fresh = talk.said.at(-1)![0] === 'student' && talk.to === 'anselm'
    const [thread] = await db
      .insert(t.messageThreads)
      .values({
        seminarId,
        studentId,
        startedBy: staffId,
        activityId: talk.about ? activity.get(talk.about)! : null,
        subject: talk.subject,
        sendingId: v7(),
        toldAt: first,
        lastAt: last,
        staffSeenAt: fresh ? first : last,
        studentSeenAt: last,
        madeAt: first,
      })
      .returning()
    await db.insert(t.messages).values(
      talk.said.map(([who, , text], i) => ({
        seminarId,
        threadId: thread!.id,
        authorId: who === 'staff' ? staffId : studentId,
        text,
        words: wordsIn(text),
        direct: true,
        at: times[i]!,
      })),
    )
  }
  await db.insert(t.messageRules).values({
    seminarId,
    activityId: null,
    daysBefore: 1,
    atTime: '12:00',
    subject: 'Before {activity} is due',
    text: 'Dear {name},\n\n{activity} is due {due}, and there is nothing from you yet. Still to come: {missing}.\n\nIs something in the way? Answer here, a line is enough.',
    madeBy: enrolment.get('ines')!,
    madeAt: at([2, 1, '09:00']),
  })
}
