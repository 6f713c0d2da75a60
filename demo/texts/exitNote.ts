import type { DemoText } from './text'

/** "The stair at noon", week 6: answers given on the way out of Wednesday's class. */
export const exitNote: readonly DemoText[] = [
  { id: 'x-liv', by: 'liv', at: [6, 3, '09:52'], text: `That the stair is dry at noon says only what the tide was doing on the day he drew it. I had taken it for a sign that nobody used it.` },
  { id: 'x-solongo', by: 'solongo', at: [6, 3, '09:53'], text: `Eleven steps are dry. At two hands a step that is a low spring tide, so he chose his day. A drawing with a chosen day is an argument.` },
  { id: 'x-abena', by: 'abena', at: [6, 3, '09:53'], text: `It is noon by the shadow, but of which day? If it is after the calendar was changed, he is ten days out.` },
  { id: 'x-nico', by: 'nico', at: [6, 3, '09:54'], text: `The only person on the stair is the one holding the measuring rod. He is the reason it is empty.` },
  { id: 'x-kadri', by: 'kadri', at: [6, 3, '09:54'], text: `What I take away is Malin's remark that the stair can be seen from the board's window and from nowhere else.` },
  { id: 'x-malin', by: 'malin', at: [6, 3, '09:55'], text: `From the foot of the stair you see the Anchor's cellar door and nothing of the town. Whoever came up it arrived unseen for eleven steps.` },
  { id: 'x-illari', by: 'illari', at: [6, 3, '09:55'], text: `The middle of each step is worn and the edges are not. One person at a time, with something on the back.` },
  { id: 'x-oona', by: 'oona', at: [6, 3, '09:56'], text: `If everybody knew the stair, why did it need to be drawn? And if they did not, who was it drawn for?` },
  { id: 'x-yusra', by: 'yusra', at: [6, 3, '09:56'], text: `11 steps dry, 4 wet, 1 broken. The estimate for repair is for 12.` },
  { id: 'x-rasmus', by: 'rasmus', at: [6, 3, '10:01'], text: `That a stair belongs to whoever must mend it, and that the drawing was made to settle this; hence the care with which it shows the one broken step, and the carelessness with which it shows everything that was not in dispute.` },
  { id: 'x-besnik', by: 'besnik', at: [6, 3, '10:03'], text: `There is no rail. They wanted it to be hard for old people.` },
]
