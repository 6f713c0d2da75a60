import type { DemoPage } from './page'

/** "City pages", in the second of its four weeks: six guides for somebody who arrives by water and stays. */
export const cityPages: readonly DemoPage[] = [
  {
    group: 'Port Amara', title: 'Port Amara', made: ['laleh', [5, 1, '14:10']],
    versions: [
      { by: 'laleh', at: [5, 1, '14:32'], says: 'a first page for all of us', text: 'Port Amara lies where the river gives up. You will see the bar before you see the town.\n\nRead first about [the two moles](<The two moles.md>), then about [the pilots and their oath](<Pilots and their oath.md>). Nobody comes in without either.' },
      { by: 'mireille', at: [5, 3, '19:05'], says: 'who takes the money', edits: [['Nobody comes in without either.', 'Nobody comes in without either, and nobody goes out without having paid: see [What to pay](<What to pay.md>).']] },
      { by: 'malin', at: [5, 6, '10:40'], says: 'what one sees, in order', edits: [['You will see the bar before you see the town.', 'You will see the bar before you see the town: a white line at low water, two hundred paces of it. Then the heads of the moles, then the roof of the weigh-house, and last of all the people.']] },
      { by: 'nico', at: [6, 1, '23:10'], says: 'a warning', edits: [['and last of all the people.', 'and last of all the people, who have been watching you for an hour.'], ['see [What to pay](<What to pay.md>).', 'see [What to pay](<What to pay.md>). If it is the [fever year](<The fever year.md>), turn round.']] },
    ],
    comments: [{ id: 'city-a1', by: 'malin', at: [6, 2, '08:20'], text: 'Should this page say which way the wind usually stands? Everything else follows from it.' }],
  },
  {
    group: 'Port Amara', title: 'The two moles', under: 'Port Amara', claimedBy: 'malin', made: ['malin', [5, 2, '09:00']],
    versions: [
      { by: 'malin', at: [5, 2, '09:20'], says: 'a plan of the harbour', text: 'Port Amara lies open to the south-west. It has two moles. The first was built by the town; the second came later.' },
      { by: 'laleh', at: [5, 2, '17:26'], says: 'asks what they are for', edits: [['It has two moles.', 'It has two moles, and it needs both of them.']] },
      { by: 'malin', at: [5, 3, '19:40'], says: 'begins again, with the anchors', text: 'Port Amara lies open to the south-west. For a very long time a ship that missed the daylight rode outside the bar, and the town paid for it in anchors. The first mole was built by the town; the second came later, and only the second made a harbour of the place.' },
      { by: 'malin', at: [5, 4, '20:17'], says: 'first full draft', edits: [['made a harbour of the place.', 'made a harbour of the place, for one arm breaks a sea and two arms still it.\n\nWhat the moles did to those left outside them is harder to say. The poor suffered. By the fever year of 1649 the still water between the two arms was blamed for the sickness, and some wished one of them down.\n\nFrom the head of the second mole one can read the clock of the weigh-house; from the first one cannot. The pilots waited on the second.']] },
      { by: 'mireille', at: [5, 7, '11:30'], says: 'says who paid', edits: [['was built by the town;', 'was raised on the pilots’ dues;']] },
      { by: 'malin', at: [5, 7, '21:55'], says: 'moves the clock up, where one arrives', text: 'From the head of the second mole one can read the clock of the weigh-house; from the first one cannot. The pilots waited on the second.\n\nPort Amara lies open to the south-west. For a very long time a ship that missed the daylight rode outside the bar, and the town paid for it in anchors. The first mole was raised on the pilots’ dues; the second came later, and only the second made a harbour of the place, for one arm breaks a sea and two arms still it.\n\nWhat the moles did to those left outside them is harder to say. The poor suffered. By the fever year of 1649 the still water between the two arms was blamed for the sickness, and some wished one of them down.' },
      { by: 'laleh', at: [6, 1, '16:03'], says: 'dates, and the widows', actsOn: ['city-m1'], edits: [['For a very long time a ship', 'Until 1589 a ship'], ['was raised on the pilots’ dues; the second came later,', 'was raised on the pilots’ dues, with the widows’ shares taken out before a stone was bought; the second followed in 1591,']] },
      { by: 'nico', at: [6, 1, '22:40'], says: 'who lost by the wall', actsOn: ['city-m2'], edits: [['The poor suffered.', 'The lightermen of the outer strand lost the work of carrying ashore, and nineteen of them put their marks to a complaint; the answer, if there was one, has not been found.']] },
      { by: 'mireille', at: [6, 2, '09:12'], says: 'how long between the two', edits: [['the second followed in 1591,', 'the second followed in 1591, two years after the first,']] },
      { by: 'malin', at: [6, 3, '08:02'], says: 'a source for the complaint', edits: [['put their marks to a complaint;', 'put their marks to a complaint[^1];'], ['and some wished one of them down.', 'and some wished one of them down.\n\n[^1]: Nineteen marks, four of them alike.\n\n    Town book of Port Amara, leaf 61']] },
    ],
    comments: [
      { id: 'city-m1', by: 'mireille', at: [5, 5, '18:10'], on: 'the second came later', text: 'The date of the second mole? Two years are a short time for so much stone; somebody lent.' },
      { id: 'city-m2', by: 'laleh', at: [5, 6, '12:00'], on: 'The poor suffered.', text: '“The poor”: how do we know, and which? At home it was the ferrymen.' },
      { id: 'city-m2a', by: 'nico', at: [6, 1, '22:42'], answers: 'city-m2', text: 'Lightermen. Nineteen of them. I have put the rest where the sentence was, and it is longer than my wages.' },
      { id: 'city-m3', by: 'mireille', at: [6, 1, '19:25'], on: 'widows’ shares', text: 'Is a widow’s share a due or an alms? If it came out before a stone was bought, the moles were built with what was left.' },
      { id: 'city-m4', by: 'ines', at: [6, 2, '17:40'], text: 'This page knows where one stands. Who was standing on the first mole while the pilots waited on the second?' },
    ],
    draft: { by: 'mireille', at: [6, 3, '09:50'], edits: [['two years after the first,', 'two years after the first, on money that had been promised elsewhere,']] },
  },
  {
    group: 'Port Amara', title: 'Pilots and their oath', under: 'Port Amara', claimedBy: 'laleh', made: ['laleh', [5, 2, '17:30']],
    versions: [
      { by: 'laleh', at: [5, 2, '18:02'], says: 'begins with the oath', text: 'The oath stands in the town book of 1588, a year before there was anything to steer between. No pilot might bring a hull in by lantern. He swore it yearly before the stair-master, and was paid his oath in wine.' },
      { by: 'laleh', at: [5, 4, '08:45'], says: 'compares with one place', edits: [['and was paid his oath in wine.', 'and was paid his oath in wine.\n\nAt Isfahan the water-master swore as well, on a dry stone, and it was the dryness that bound him. Here it was the hour: an oath against the dark.']] },
      { by: 'malin', at: [5, 6, '10:55'], says: 'where he stood', edits: [['before the stair-master,', 'before the stair-master, on the ninth step, which is dry at all tides but one,']] },
      { by: 'laleh', at: [6, 2, '07:30'], says: 'says whom it kept out', actsOn: ['city-p1'], edits: [['an oath against the dark.', 'an oath against the dark. It kept the careless out, and with them everyone who could not wait for day: the sick, the late, and whoever carried fish.']] },
    ],
    comments: [
      { id: 'city-p1', by: 'nico', at: [5, 7, '23:30'], on: 'by lantern', text: 'So who came in at night anyway? Somebody always does. Ask the fish.' },
      { id: 'city-p2', by: 'mireille', at: [6, 2, '12:00'], on: 'paid his oath in wine', text: 'How much wine? If it is in the accounts, it is a wage.' },
    ],
  },
  {
    group: 'Port Amara', title: 'What to pay', under: 'Port Amara', claimedBy: 'mireille', made: ['mireille', [5, 3, '18:40']],
    versions: [
      { by: 'mireille', at: [5, 3, '19:00'], says: 'the list', text: 'Have small coin. You pay four times before you have slept.\n\n| to whom | for what | how much |\n| --- | --- | --- |\n| the pilot | the bar | by your draught |\n| the stair-master | the step | one penny |\n| the weigh-house | your goods | one in sixty |\n| the widows’ box | nothing | what you like |' },
      { by: 'mireille', at: [5, 5, '21:10'], says: 'the box is not for nothing', edits: [['| the widows’ box | nothing | what you like |', '| the widows’ box | the moles | what you like, while they look at you |'], ['You pay four times before you have slept.', 'You pay four times before you have slept, and only the last of the four is called a gift.']] },
      { by: 'nico', at: [6, 1, '23:25'], says: 'adds the gull', edits: [['while they look at you |', 'while they look at you |\n| the gull | the railing | one chip |']] },
      { by: 'mireille', at: [6, 2, '08:55'], says: 'takes the gull out again', restores: 2 },
    ],
    comments: [{ id: 'city-w1', by: 'malin', at: [5, 6, '11:10'], text: 'Which of these can be seen from the ship? One would like to know before one lands.' }],
  },
  {
    group: 'Port Amara', title: 'The fever year', under: 'Port Amara', claimedBy: 'nico', made: ['nico', [6, 1, '23:12']],
    versions: [],
  },

  {
    group: 'Sundvik', title: 'Where to land', claimedBy: 'femke', made: ['femke', [5, 1, '10:00']],
    versions: [
      { by: 'femke', at: [5, 1, '10:30'], says: 'says what landing is', text: 'To land is to be seen landing. At Sundvik there are three places where this can happen, and each means something else.\n\n- **The stair**: you are a guest.\n- **The fish strand**: you are a neighbour, or a thief.\n- **The weigh-house step**: you are goods.' },
      { by: 'wanjiru', at: [5, 3, '20:20'], says: 'weather for each', edits: [['you are a guest.', 'you are a guest; not with wind from the north-east.'], ['you are a neighbour, or a thief.', 'you are a neighbour, or a thief; at half tide and rising, never falling.']] },
      { by: 'femke', at: [5, 5, '09:15'], says: 'a fourth, which is none', edits: [['you are goods.', 'you are goods.\n\nThere is a fourth place, the cellar of the house called the Anchor, which lies below the quay. Nobody lands there. I should like to know what is meant by “nobody”.']] },
      { by: 'jonas', at: [6, 2, '23:58'], says: 'the tokens', actsOn: ['city-s1'], edits: [['what is meant by “nobody”.', 'what is meant by “nobody”. Forty lead tokens were struck with a mole and a star; thirty-one are accounted for. Nine people were nobody.']] },
    ],
    comments: [
      { id: 'city-s1', by: 'wanjiru', at: [5, 7, '10:00'], on: 'Nobody lands there.', text: 'Then why does the cellar have a ring in the wall at the height of a gunwale?' },
      { id: 'city-s2', by: 'femke', at: [6, 3, '08:30'], on: 'Nine people were nobody', text: 'Is a missing token a missing person? Define “accounted for”.' },
    ],
  },
  {
    group: 'Sundvik', title: 'What not to say', claimedBy: 'wanjiru', made: ['wanjiru', [5, 3, '20:40']],
    versions: [
      { by: 'wanjiru', at: [5, 3, '21:05'], says: 'three words', text: 'Do not say “safe”. Nobody here has insured a hull for more than two thirds of it since the gale of 1611, and they remember who said it was safe.\n\nDo not say “nineteen”.' },
      { by: 'femke', at: [5, 5, '09:40'], says: 'asks why nineteen', edits: [['Do not say “nineteen”.', 'Do not say “nineteen”. The toll begins at twenty lasts, and the guild’s eleven barges have all been measured at nineteen. It is a number like any other; that is the trouble with it.']] },
    ],
    comments: [{ id: 'city-s3', by: 'ines', at: [6, 1, '09:10'], text: 'A page of things not to say is a fine way to say them. What would the nine who signed the petition of 1687 add?' }],
  },

  {
    group: 'Sundvik 2', title: 'Coming in', claimedBy: 'abena', made: ['abena', [5, 1, '09:10']],
    versions: [
      { by: 'abena', at: [5, 1, '09:45'], says: 'in the order of dates', text: 'In 1609 they begin the breakwater. In 1612 they begin to charge for it. In 1686 somebody counts what has been thrown into the water behind it. In 1687 nine people write that the water is no longer deep enough to float what they live from.\n\nDecide in which year you arrive. It matters more than the wind.' },
      { by: 'yusra', at: [5, 2, '12:30'], says: 'what each year costs', edits: [['It matters more than the wind.', 'It matters more than the wind.\n\n| arriving in | toll on 24 lasts | depth at the stair |\n| --- | --- | --- |\n| 1612 | 12 marks | 11 feet |\n| 1650 | 12 marks | 9 feet |\n| 1686 | 12 marks | 7 feet |']] },
      { by: 'teodora', at: [5, 4, '15:15'], says: 'reads the petition aloud', edits: [['to float what they live from.', 'to float what they live from. The petition does not complain. It describes, in the passive, until the last line, where there is suddenly a “we”.']] },
      { by: 'petra', at: [6, 1, '08:59'], says: 'the depth is a guess, says so', actsOn: ['city-t1'], edits: [['| 1650 | 12 marks | 9 feet |', '| 1650 | 12 marks | perhaps 9 feet |'], ['| 1686 | 12 marks | 7 feet |', '| 1686 | 12 marks | 7 feet, by the ballast book |']] },
      { by: 'abena', at: [6, 2, '10:05'], says: 'mends a date', edits: [['In 1612 they begin to charge for it.', 'From Michaelmas 1612 they charge for it.']] },
    ],
    comments: [
      { id: 'city-t1', by: 'abena', at: [5, 3, '08:00'], on: '9 feet', text: 'Which document has a depth for 1650? If there is none, the table should say so.' },
      { id: 'city-t2', by: 'teodora', at: [6, 2, '18:00'], on: 'Decide in which year you arrive', text: 'I would end the page here. The table makes us arrive with a ruler.' },
    ],
  },
  {
    group: 'Sundvik 2', title: 'Whom to ask', claimedBy: 'teodora', made: ['teodora', [5, 4, '15:30']],
    versions: [
      { by: 'teodora', at: [5, 4, '16:10'], says: 'three voices', text: 'Ask the toll-keeper, and you will be told the rule. Ask the women at the fish stairs, and you will be told the exception. Ask at the Anchor, and you will be asked why you are asking.' },
      { by: 'yusra', at: [6, 1, '13:20'], says: 'how many of each', edits: [['and you will be told the rule.', 'and you will be told the rule (there are two of them, by turns).'], ['and you will be told the exception.', 'and you will be told the exception (there are thirty, and they agree).']] },
    ],
  },

  {
    group: 'Port Amara 2', title: 'Port Amara from below', claimedBy: 'solongo', made: ['solongo', [5, 1, '18:00']],
    versions: [
      { by: 'solongo', at: [5, 1, '18:40'], says: 'the ground', text: 'What you stand on when you land is not ground. It is what the river brought in since the second mole was closed in 1591, held by piles of alder.\n\nIf the silt behind the moles rises by $s$ each year, the depth after $t$ years is\n\n$$\nd(t) = d_0 - s\\,t\n$$\n\nand the pilots could have drawn that line.' },
      { by: 'emrys', at: [5, 3, '22:10'], says: 'doubts the line', edits: [['and the pilots could have drawn that line.', 'and the pilots could have drawn that line. There is no evidence that they did.']] },
      { by: 'tomasz', at: [5, 5, '16:35'], says: 'concedes, and turns', edits: [['There is no evidence that they did.', 'There is no evidence that they did, and I grant that a line nobody drew proves nothing. But somebody moved the landing stair by eleven feet in 1640, and one does not move a stair for pleasure.']] },
      { by: 'besnik', at: [6, 1, '07:20'], says: 'who moved it', actsOn: ['city-u1'], edits: [['and one does not move a stair for pleasure.', 'and one does not move a stair for pleasure. Six men carried it, in two nights. They are paid for one.']] },
    ],
    comments: [
      { id: 'city-u1', by: 'solongo', at: [5, 6, '09:00'], on: 'somebody moved the landing stair', text: 'Who moved it? Eleven feet of stone stair weigh about four tons.' },
      { id: 'city-u2', by: 'emrys', at: [6, 2, '21:45'], on: 'paid for one', text: 'Source? “They are paid for one” could be a scribe who was tired.' },
    ],
  },
  {
    group: 'Port Amara 2', title: 'Bread and a bed', claimedBy: 'besnik', made: ['besnik', [5, 4, '06:50']],
    versions: [
      { by: 'besnik', at: [5, 4, '07:10'], says: 'first', text: 'When you come you are hungry and you smell. Go first to the baker behind the second mole. She gives to everybody, and she writes it on the door. When the door is full the ships pay together. Nobody knows how it began.\n\nFor a bed you ask where the rope is drying. Where rope is drying there is a floor under it.' },
      { by: 'tomasz', at: [6, 2, '11:15'], says: 'mends two sentences, no more', edits: [['When the door is full the ships pay together.', 'When the door is full, the ships pay together, and she washes it.']] },
    ],
  },

  {
    group: 'Qasr el-Mina', title: 'The chain', claimedBy: 'liv', made: ['kadri', [5, 1, '11:00']],
    versions: [
      { by: 'kadri', at: [5, 1, '11:20'], says: 'begins, for whoever takes it', text: 'A chain lies across the mouth of Qasr el-Mina. It is down by day. Read [the interpreter’s office](<The interpreter.md>) next: it is the first door you will need.' },
      { by: 'liv', at: [5, 2, '10:15'], says: 'what the sources say of it', edits: [['It is down by day.', 'The register of quarrels mentions it eleven times between 1702 and 1731, and never once as a chain: it is “the iron”, “the closing”, “what the porters lift”. It is down by day, as far as I can see; the register is silent on the days when it was not.']] },
      { by: 'saoirse', at: [5, 4, '20:30'], says: 'who lifted it', edits: [['“what the porters lift”.', '“what the porters lift”. The porters’ wives lifted it too, on the two feast days, for half.']] },
      { by: 'liv', at: [5, 6, '09:05'], says: 'a page number for the wives', actsOn: ['city-q1'], edits: [['on the two feast days, for half.', 'on the two feast days, for half[^1].'], ['on the days when it was not.', 'on the days when it was not.\n\n[^1]: “To the same, their women lifting, half.”\n\n    Register of quarrels, entry for the feast of 1709']] },
      { by: 'oona', at: [6, 1, '17:45'], says: 'asks', edits: [['It is down by day,', 'Who is it for, if it is down by day? It is down by day,']] },
    ],
    comments: [
      { id: 'city-q1', by: 'kadri', at: [5, 5, '08:40'], on: 'for half', text: 'This is the sentence everyone will remember. Has it a page?' },
      { id: 'city-q2', by: 'saoirse', at: [6, 2, '19:00'], on: 'as far as I can see', text: 'You have looked further than any of us. You may say it plainly.' },
    ],
  },
  {
    group: 'Qasr el-Mina', title: 'The interpreter', claimedBy: 'kadri', made: ['kadri', [5, 2, '08:30']],
    versions: [
      { by: 'kadri', at: [5, 2, '09:00'], says: 'what the office did', text: 'The interpreter’s office stands inside the chain and outside the town. Everyone who arrives is asked four questions there, in seven languages, and the answers are written down in an eighth.' },
      { by: 'oona', at: [5, 5, '14:00'], says: 'four questions', edits: [['asked four questions there,', 'asked four questions there (whose are you, what do you carry, who knows you, when do you leave),']] },
      { by: 'kadri', at: [6, 1, '10:20'], says: 'sums up what the others found', edits: [['in an eighth.', 'in an eighth. Liv asks who could read the eighth; Saoirse, who was never asked. Both questions have the same answer.']] },
    ],
    comments: [{ id: 'city-q3', by: 'liv', at: [6, 2, '08:15'], text: 'Could this page say what happened to those who had no fourth answer?' }],
  },

  {
    group: 'Qasr el-Mina 2', title: 'Quarrels and how to have them', claimedBy: 'idris', made: ['rasmus', [5, 1, '20:00']],
    versions: [
      { by: 'rasmus', at: [5, 1, '20:50'], says: 'the institution', text: 'A harbour in which nobody quarrels is a harbour in which nobody trades, and Qasr el-Mina, which traded a great deal, found for its quarrels an institution that deserves a page: a table on the quay, open from the dawn prayer until noon, at which three men sat who had themselves lost a case there. The register that they kept runs from 1702 to 1731.' },
      { by: 'idris', at: [5, 3, '09:30'], says: 'the law of it', edits: [['The register that they kept runs from 1702 to 1731.', 'The register that they kept runs from 1702 to 1731, and what is remarkable in it is not that quarrels were settled, for quarrels are settled everywhere and mostly badly, but that both parties swore before they knew the sum, so that the oath lay under the money and not upon it.']] },
      { by: 'illari', at: [5, 5, '06:40'], says: 'who stood while they sat', edits: [['who had themselves lost a case there.', 'who had themselves lost a case there. The table was carried out each morning and carried in each noon. The carriers are paid by the week. They lost no cases, because they had nothing to claim.']] },
      { by: 'rasmus', at: [6, 1, '21:30'], says: 'shortens himself', actsOn: ['city-r1'], edits: [['A harbour in which nobody quarrels is a harbour in which nobody trades, and Qasr el-Mina, which traded a great deal, found for its quarrels an institution that deserves a page:', 'Where nobody quarrels nobody trades. Qasr el-Mina had for its quarrels']] },
    ],
    comments: [
      { id: 'city-r1', by: 'illari', at: [5, 4, '07:00'], on: 'an institution that deserves a page', text: 'Forty words before the table comes. I would like to see the table sooner.' },
      { id: 'city-r2', by: 'idris', at: [6, 2, '22:00'], on: 'lost a case there', text: 'Is it attested that all three had lost one? It would be the best rule of appointment I know, and therefore I mistrust it.' },
    ],
  },
]
