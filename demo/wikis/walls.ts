import type { DemoPage } from './page'

/** "Walls of Sundvik", finished: what six groups wrote of the breakwater in weeks 2 to 4. */
export const walls: readonly DemoPage[] = [
  {
    group: 'Enemies', title: 'Waves', claimedBy: 'malin', made: ['malin', [2, 2, '10:00']],
    versions: [
      { by: 'malin', at: [2, 2, '10:30'], says: 'where they come from', text: 'The waves that matter come from the north-east, over four days of open water. On all other sides Sundvik is its own shelter.' },
      { by: 'tomasz', at: [2, 5, '15:00'], says: 'concedes the size of them', edits: [['over four days of open water.', 'over four days of open water. I grant that nobody measured one.']] },
      { by: 'liv', at: [3, 3, '09:10'], says: 'what the masons say of them', actsOn: ['walls-e1'], edits: [['I grant that nobody measured one.', 'Nobody measured one, but the masons’ bill of 1610 asks for stones “of such weight as the last ones were”, and the last ones had gone.']] },
      { by: 'malin', at: [4, 2, '18:20'], says: 'links the worm', edits: [['is its own shelter.', 'is its own shelter. What the waves left standing, [the worm](<The worm.md>) took from below.']] },
    ],
    comments: [{ id: 'walls-e1', by: 'besnik', at: [3, 1, '07:30'], on: 'nobody measured one', text: 'Somebody measures always. Maybe not in feet. How heavy were the stones that stayed?' }],
  },
  {
    group: 'Enemies', title: 'The worm', claimedBy: 'liv', made: ['liv', [2, 3, '09:00']],
    versions: [
      { by: 'liv', at: [2, 3, '09:40'], says: 'what is known', text: 'The piles under the first forty paces were oak, and by 1622 they were sponge. The word in the accounts is “worm”. It is a shell that bores; but the accounts are right that it came with the ships.' },
      { by: 'besnik', at: [2, 6, '08:15'], says: 'how one tests for it', edits: [['they were sponge.', 'they were sponge. You take a hammer and you listen. Good wood answers.']] },
      { by: 'liv', at: [3, 5, '09:00'], says: 'who brought it', edits: [['that it came with the ships.', 'that it came with the ships, and, since the worm does not live in fresh water, only with those that came from the south. The toll was higher for them afterwards; the reason given is another.']] },
    ],
    comments: [{ id: 'walls-e2', by: 'malin', at: [3, 6, '11:00'], on: 'the reason given is another', text: 'Which reason is given? It would be good to have both side by side.' }],
  },
  {
    group: 'Enemies', title: 'Neighbours', claimedBy: 'tomasz', made: ['tomasz', [2, 4, '16:00']],
    versions: [
      { by: 'tomasz', at: [2, 4, '16:30'], says: 'the next town', text: 'The council of the next town wrote that the wall would send the sea to them. It is easy to laugh at this. It is also what happened.' },
      { by: 'besnik', at: [3, 2, '07:00'], says: 'their strand', edits: [['It is also what happened.', 'It is also what happened: in eleven years their strand is gone up to the chapel.']] },
      { by: 'tomasz', at: [4, 1, '17:10'], says: 'keeps the contradiction', edits: [['up to the chapel.', 'up to the chapel. On [the page about waves](Waves.md) we say that Sundvik is its own shelter. Both cannot be the whole truth, and we leave both.']] },
    ],
  },
  {
    group: 'Stones', title: 'The quarry', claimedBy: 'illari', made: ['illari', [2, 2, '06:30']],
    versions: [
      { by: 'illari', at: [2, 2, '07:00'], says: 'how one breaks a stone', text: 'You drill a line of holes by hand, you drive in dry wood, you pour water, you go home. In the morning the stone is two stones.' },
      { by: 'rasmus', at: [2, 5, '20:40'], says: 'who owned it', edits: [['In the morning the stone is two stones.', 'In the morning the stone is two stones. The quarry belonged to the crown, the wood to the parish and the morning to nobody, and out of these three facts the council made a contract of eleven pages.']] },
      { by: 'femke', at: [3, 2, '10:00'], says: 'what counts as a stone', actsOn: ['walls-s1'], edits: [['You drill a line', 'A stone, in the accounts, is what one cart carries. You drill a line']] },
      { by: 'illari', at: [4, 3, '06:10'], says: 'how it came over', edits: [['a contract of eleven pages.', 'a contract of eleven pages. It came over in the fishermen’s own boats: see [the boats](<The boats.md>).']] },
    ],
    comments: [
      { id: 'walls-s1', by: 'femke', at: [2, 6, '09:30'], on: 'the stone is two stones', text: 'What is “a stone”? If two come of one overnight, the account is not of stones.' },
      { id: 'walls-s2', by: 'paz', at: [2, 7, '12:00'], text: 'The second stair has stones with the same holes. I have a picture.' },
    ],
  },
  {
    group: 'Stones', title: 'The boats', claimedBy: 'femke', made: ['femke', [2, 4, '10:00']],
    versions: [
      { by: 'femke', at: [2, 4, '10:40'], says: 'which boats', text: 'The stones were carried in the fishermen’s own boats, four to a tide. In the back of the ledger for 1613 a clerk notes that they asked for a receipt.' },
      { by: 'illari', at: [3, 4, '06:20'], says: 'what it does to a boat', edits: [['four to a tide.', 'four to a tide. A boat that has carried stone leaks at the third plank. Nobody paid for planks.']] },
    ],
  },
  {
    group: 'Builders', title: 'Carpenters', claimedBy: 'idris', made: ['kadri', [2, 2, '12:00']],
    versions: [
      { by: 'kadri', at: [2, 2, '12:20'], says: 'opens the page', text: 'Fourteen carpenters are paid in the summer of 1609, by name. In the winter they are “the same”.' },
      { by: 'idris', at: [2, 6, '19:00'], says: 'the oath of the craft', edits: [['In the winter they are “the same”.', 'In the winter they are “the same”, and one would give much to know whether the same were the same, for a carpenter of that craft was sworn to a town and not to a work, and might not be sent where his oath did not reach.']] },
      { by: 'anselm', at: [3, 6, '02:10'], says: 'shorter sentences', edits: [['and one would give much to know whether the same were the same, for a carpenter of that craft was sworn to a town and not to a work, and might not be sent where his oath did not reach.', 'and we do not know whether they were. A carpenter was sworn to a town, not to a work. He might not be sent where his oath did not reach.']] },
    ],
  },
  {
    group: 'Builders', title: 'Divers', claimedBy: 'oona', made: ['oona', [2, 5, '11:00']],
    versions: [
      { by: 'oona', at: [2, 5, '11:15'], says: 'questions', text: 'Who went down? For how long? What did they see by? Who decided when it was enough?' },
      { by: 'kadri', at: [3, 1, '09:00'], says: 'an answer to one of them', edits: [['For how long?', 'For how long? (As long as a psalm; it is said which.)']] },
    ],
    comments: [{ id: 'walls-b1', by: 'idris', at: [3, 3, '20:00'], on: 'Who decided when it was enough?', text: 'The one who held the rope. It ought to be on the carpenters’ page as well; they were paid from one chest.' }],
  },
  {
    group: 'Money', title: 'The dues', claimedBy: 'emrys', made: ['emrys', [2, 3, '21:00']],
    versions: [
      { by: 'emrys', at: [2, 3, '21:30'], says: 'only what is attested', text: 'Attested: a toll from Michaelmas 1612 on hulls of twenty lasts and more. Not attested: that it paid for the wall.' },
      { by: 'saoirse', at: [2, 6, '18:10'], says: 'who carried the money', edits: [['Not attested: that it paid for the wall.', 'Not attested: that it paid for the wall. The money was carried up to the hall by Maret, who is paid two pence each time and has no second name.']] },
      { by: 'nico', at: [3, 7, '23:50'], says: 'an opening line', edits: [['Attested: a toll', 'A wall is a very slow way of throwing money into the sea. Attested: a toll']] },
      { by: 'emrys', at: [4, 2, '22:15'], says: 'contradicts the page on loans, and says so', edits: [['and has no second name.', 'and has no second name. The page on [the loans](<The loans.md>) says otherwise; one of us is wrong.']] },
    ],
  },
  {
    group: 'Money', title: 'The loans', claimedBy: 'saoirse', made: ['saoirse', [2, 5, '18:00']],
    versions: [
      { by: 'saoirse', at: [2, 5, '18:30'], says: 'whose plate', text: 'The guild lent, it is said. What it lent was plate: spoons, a salt, a christening cup. Somebody’s kitchen is in the foundations.' },
      { by: 'emrys', at: [3, 2, '22:00'], says: 'asks for the list', edits: [['a christening cup.', 'a christening cup (the list is a copy of 1660).']] },
    ],
  },
  {
    group: 'Ships', title: 'Nineteen lasts', claimedBy: 'yusra', made: ['yusra', [2, 2, '13:00']],
    versions: [
      { by: 'yusra', at: [2, 2, '13:30'], says: 'the figures', text: '| barge | built | lasts |\n| --- | --- | --- |\n| Hope | 1598 | 19 |\n| Patience | 1601 | 19 |\n| Three Brothers | 1604 | 19 |\n\nEleven barges, all nineteen. The chance of that, if each were measured for itself, is small enough to leave out.' },
      { by: 'solongo', at: [2, 4, '19:00'], says: 'what a last is', edits: [['Eleven barges, all nineteen.', 'A last is what fills twelve barrels, or what a hull holds by length times breadth times depth over a number on which nobody agreed. Eleven barges, all nineteen.']] },
      { by: 'petra', at: [3, 1, '08:50'], says: 'mends the table', edits: [['| Three Brothers | 1604 | 19 |', '| Three Brothers | 1604 | 19 |\n| Good Intent | 1607 | 19 |']] },
    ],
    comments: [{ id: 'walls-n1', by: 'wanjiru', at: [3, 3, '20:00'], on: 'small enough to leave out', text: 'I would put it in. One in how many?' }],
  },
  {
    group: 'Weather', title: 'The gale of 1611', claimedBy: 'abena', made: ['abena', [2, 2, '09:00']],
    versions: [
      { by: 'abena', at: [2, 2, '09:30'], says: 'the date, first', text: 'It was the night of 9 November 1611, old style. Sixty paces of the wall went; the rest is what one sees.' },
      { by: 'teodora', at: [2, 5, '14:00'], says: 'how it is told', edits: [['the rest is what one sees.', 'the rest is what one sees. In the chronicle the storm has a subject and a verb; the men who were on the wall have neither.']] },
      { by: 'laleh', at: [3, 4, '08:20'], says: 'one far place', edits: [['have neither.', 'have neither. At Hormuz they kept the names of the drowned in a list of boats. Here they kept the list of stones.']] },
      { by: 'mireille', at: [4, 2, '19:30'], says: 'what it cost', edits: [['Sixty paces of the wall went;', 'Sixty paces of the wall went, and with them the money of two summers;']] },
    ],
  },
]
