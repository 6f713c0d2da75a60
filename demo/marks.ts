/** Marks already given in "Who paid for the breakwater?". Steps are places on the ladder, 0 the lowest, by criterion. */
export interface DemoMark {
  readonly student: string
  readonly state: 'open' | 'held' | 'returned'
  readonly steps: readonly (number | null)[] // evidence, builds on others, clarity, timeliness
  readonly cites: ReadonlyArray<{ readonly criterion: number; readonly text: string; readonly exact: string }>
  readonly letter: ReadonlyArray<readonly [heading: string | null, text: string]>
  readonly note?: string
}

const E = 'Use of evidence',
  B = 'Builds on others',
  C = 'Clarity of argument',
  T = 'Timeliness'

export const marks: readonly DemoMark[] = [
  {
    student: 'tomasz',
    state: 'returned',
    steps: [2, 3, 3, 2],
    cites: [
      { criterion: 0, text: 'b-tomasz', exact: 'Eleven times nineteen is another matter.' },
      { criterion: 1, text: 'b2', exact: 'a price in 1609 and a habit by 1620' },
    ],
    letter: [
      [null, 'Dear Tomasz,'],
      [
        E,
        'You granted the contract its due and then let eleven barges undo it, which is the right order. For the top step I wanted one document beside the roll: the receipt Liv found would have tested your sentence about strangers.',
      ],
      [
        B,
        'A price that became a habit: you took Rasmus’s treaty, kept what was good in it, and handed it back sharper. Could you do that once to somebody you find harder to agree with?',
      ],
      [C, 'Two meanings of paying, told apart in a paragraph, and neither lost sight of again.'],
      [
        null,
        'I enjoyed this. Why do you always concede first, I wonder, and what would happen if you once did not?\nInes',
      ],
    ],
  },
  {
    student: 'liv',
    state: 'returned',
    steps: [2, 2, 2, 2],
    cites: [
      {
        criterion: 0,
        text: 'b-liv',
        exact: 'A receipt is what you ask for when you have given something that you expect to be counted',
      },
      { criterion: 1, text: 'b8', exact: 'that is when a favour begins to look like a custom' },
    ],
    letter: [
      [null, 'Dear Liv,'],
      [
        null,
        'You let the ledger speak before you did, and the receipt the fishermen asked for is the best thing anyone found this fortnight. Next time, name the classmate you part company with.',
      ],
      [
        E,
        'Nobody else asked what kind of document a toll roll is before using it. You are careful with the receipt, perhaps one degree too careful: you say twice that you would not build on it, and then you do, and it holds.',
      ],
      [
        B,
        'Your answer to Solongo explains a date that had puzzled three of us. With Emrys you gave way more than he asked for. Where do you still disagree with him?',
      ],
      [C, 'Clear throughout. The last sentence of your opening post is your thesis; try putting it first.'],
      [null, 'With warm regards, and one question too many as usual,\nInes'],
    ],
  },
  {
    student: 'rasmus',
    state: 'returned',
    steps: [2, 2, 3, 2],
    cites: [
      { criterion: 0, text: 'b-rasmus', exact: 'several councillors owned shares in them' },
      { criterion: 2, text: 'b-rasmus', exact: 'A breakwater is an institution before it is a wall' },
      { criterion: 1, text: 'b1', exact: 'a guarantee is not free' },
    ],
    letter: [
      [null, 'Dear Rasmus,'],
      [
        E,
        'The treaty is a strong reading of a weak document: the roll shows a threshold, and you supply the bargain. I believe you, but I believe you because of the shares the councillors held, and that deserved its page number.',
      ],
      [
        B,
        'You gave Tomasz the guarantee he had left out. What I missed is an answer to Idris, who built on you twice and was not thanked for it.',
      ],
      [
        C,
        'The best opening sentence of the fortnight, and the rest keeps its promise. You have the most words of anybody; I would not cut these.',
      ],
      [T, 'In good time, all of it.'],
      [null, 'Is there an institution you do not like? I should like to read you on that one.\nInes'],
    ],
  },
  {
    student: 'saoirse',
    state: 'returned',
    steps: [3, 3, 2, 2],
    cites: [
      { criterion: 0, text: 'b37', exact: 'nineteen entries in April, eleven in June, four in August' },
      { criterion: 1, text: 'b-saoirse', exact: "add to Femke's four meanings a fifth" },
    ],
    letter: [
      [null, 'Dear Saoirse,'],
      [
        E,
        'An empty column, counted: nineteen, eleven, four, and the word “quit”. That is evidence of the kind people say does not exist.',
      ],
      [
        B,
        'A fifth meaning, offered to Femke as a gift and then tested by her, is how a seminar ought to work.',
      ],
      [C, 'The step to the quay comes quickly. Say once more, slowly, why a cart road ends a basket.'],
      [null, 'Who was the last, do you think? I have not stopped wondering.\nInes'],
    ],
  },
  {
    student: 'nico',
    state: 'held',
    steps: [1, 2, 3, 2],
    cites: [
      {
        criterion: 2,
        text: 'b-nico',
        exact: 'A false measure that varies is a crime. A false measure that never varies is a custom.',
      },
    ],
    letter: [
      [null, 'Dear Nico,'],
      [
        E,
        'The measuring is a scene, and I could see it; but a scene is not a source. One line from page 5 would have let it stand.',
      ],
      [C, 'The crime and the custom: I have quoted it to two colleagues already.'],
      [null, 'Ines'],
    ],
  },
  {
    student: 'femke',
    state: 'held',
    steps: [1, 3, 3, 2],
    cites: [
      {
        criterion: 1,
        text: 'b17',
        exact: 'declining must have been possible when the rule was made rather than on the day',
      },
    ],
    letter: [
      [null, 'Dear Femke,'],
      [
        B,
        'You repaired Petra’s definition and gave it back to her working. The whole thread used your words from Tuesday on; did you notice?',
      ],
      [C, 'Four meanings, no more than were needed.'],
      [E, 'Now one document, please, read as closely as you read your classmates.'],
      [null, 'Ines'],
    ],
  },
  {
    student: 'petra',
    state: 'held',
    steps: [1, 2, 2, 1],
    cites: [
      { criterion: 1, text: 'b18', exact: "You can't decline what has not been put to you as a question." },
    ],
    letter: [
      [null, 'Dear Petra,'],
      [
        C,
        'A definition that turned the fortnight over. It was worth nine hours, though I should prefer it to have cost you eight of them earlier.',
      ],
      [
        E,
        'Who could have said no? You answer from reason alone. The council’s thirty years of saying no are in the reader, on page 12.',
      ],
      [null, 'Ines'],
    ],
    note: 'Nine hours late again. The writing is not the trouble; ask about Wednesday evenings.',
  },
  {
    student: 'laleh',
    state: 'held',
    steps: [3, 2, 3, 2],
    cites: [{ criterion: 0, text: 'b-laleh', exact: 'A list makes creditors. A token makes insiders.' }],
    letter: [
      [null, 'Dear Laleh,'],
      [E, 'Amara is the right far place, and you used it to see Sundvik and not to leave it.'],
      [C, 'Creditors and insiders: I shall be using that.'],
      [null, 'Henrik'],
    ],
  },
  {
    student: 'emrys',
    state: 'held',
    steps: [3, 3, 2, 2],
    cites: [
      {
        criterion: 0,
        text: 'b-emrys',
        exact: 'page 6 repeats a line, which people do when they copy and not when they count',
      },
      {
        criterion: 1,
        text: 'b10',
        exact: 'If a careful stroke and a careless one both prove embarrassment, then neither does.',
      },
    ],
    letter: [
      [null, 'Dear Emrys,'],
      [E, 'You looked at the ink. Nobody else did.'],
      [
        B,
        'Your test for Teodora was fair and kindly put, and she answered it. That exchange is the best of the fortnight.',
      ],
      [null, 'What, then, do you believe?\nInes'],
    ],
  },
  {
    student: 'wanjiru',
    state: 'held',
    steps: [2, 2, 2, 2],
    cites: [{ criterion: 1, text: 'b28', exact: 'They were cheated against a fairer wall.' }],
    letter: [
      [null, 'Dear Wanjiru,'],
      [
        E,
        'You say “say one in forty”, and Yusra took you at your word. Where might such a figure come from?',
      ],
      [B, 'The second comparison is yours alone and the thread needed it.'],
      [null, 'Henrik'],
    ],
  },
  {
    student: 'mireille',
    state: 'open',
    steps: [2, null, null, null],
    cites: [
      { criterion: 0, text: 'b-mireille', exact: 'The toll of 1612 fell on every hull above twenty lasts' },
    ],
    letter: [
      [null, 'Dear Mireille,'],
      [
        E,
        'Starting from the toll roll was the right instinct, and “every hull above twenty lasts” is exactly the detail that carries your case. To reach the top step, set the second ledger beside it.',
      ],
    ],
    note: 'Second week with two replies; ask whether the Sunday deadline is the trouble.',
  },
]
