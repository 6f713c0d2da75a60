/** One line each for "Where do you arrive from?", which is done or not done. */
export const arriveLetters: Readonly<Record<string, string>> = {
  kadri: 'Everybody suddenly knew how to bake: keep that sentence for the week on the fever year.',
  rasmus: 'The hall went on doing what it had always done. You will meet another such hall in 1612.',
  tomasz: 'Four hundred years of carp from one stone is more harbour than most harbours have.',
  liv: 'A floor of timber one is forbidden to walk on. I should like to have seen who forbade it, and from where.',
  nico: 'A toll of one coin, returned minus the coin, is the best definition of dues I have read this year.',
  femke: 'It counts. Ask again in week seven, when the chain at Qasr el-Mina is land or is not.',
  mireille:
    'Neither ship nor store, and yet a harbour: bring your grandmother’s books to the ledger week, if only in your head.',
  idris:
    'Three parishes and the crown, and nobody willing to stand in the mud to find out. You have your semester’s question.',
  solongo: 'The north slope was cheaper. Thank you for the number; most people leave it out.',
  yusra: 'Fourteen crossings, and Henrik still wants to know whether the island filled up.',
  abena:
    'Before the cut, after the cut: dates that people made themselves. Look for those in the toll roll, too.',
  malin: 'What came in was light. I have no letter for that; I only wanted to say that I read it twice.',
  besnik:
    'His thumb is on each, inside, where the glue is. That is evidence, and you found it without being asked.',
  saoirse: 'Taken from behind the women. Who held the camera? Begin there when we come to the petition.',
  wanjiru:
    'They looked at his face and not at the glass. Insurers will come back in the breakwater’s accounts.',
  teodora: 'Somebody thought dead always comes in over the water. See whether the sources agree.',
  oona: 'Who was told not to worry: a better question than mine.',
  laleh: 'Ours waits. So does the chain at Qasr el-Mina, eleven months of the year.',
  emrys:
    'A photograph was also produced of our house, and it was not our house. We shall need you for the forgeries.',
  illari:
    'More reeds, to make the next: a fleet that is all upkeep. Compare it with a wall, when we get there.',
  paz: 'A wall read like a book on the way to school, and painted over. I hope you will tell the others about the years on it.',
  petra: 'One had to wait until it had finished. Noted, with affection, for every deadline to come.',
  jonas: 'Two words. I laughed, and then I wanted two hundred more.',
  anselm: 'The boats are still there. Whenever you want to begin, I am reading.',
}

/** Marks in "Walls of Sundvik": the group's step and letter by topic, each member's own steps by turns. */
export const wallsLetters: Readonly<Record<string, { readonly step: number; readonly letter: string }>> = {
  Stones: {
    step: 2,
    letter:
      'Five pages that know of each other. The page on the quarry sends one to the page on the boats at exactly the sentence where one asks how the stone came over. What nobody says is how many stones were lost on the way; the ballast book would have told you.',
  },
  Builders: {
    step: 1,
    letter:
      'You found names where the contract has only numbers, and you found them honestly. The pages still stand a little apart: the carpenters and the divers never meet, although they were paid from one chest.',
  },
  Money: {
    step: 2,
    letter:
      'The clearest account of the toll anyone has given me, and it is a pleasure that the page on the loans contradicts the page on the dues and says so. Leave that contradiction in; it is the best thing here.',
  },
  Ships: {
    step: 1,
    letter:
      'Good on lasts and measures. Nineteen lasts comes up on three of your pages as if for the first time; say it once, where it hurts, and let the other two lean on it.',
  },
  Enemies: {
    step: 2,
    letter:
      'Waves, worms, neighbours and the council of the next town: you kept all four in view and did not let the waves win. The page on the worm is quoted by three other groups, which is what a page is for.',
  },
  Weather: {
    step: 1,
    letter:
      'You wrote about storms from the people who had to sit them out, and it shows. The pages lean on the gale of 1611 more than one gale can bear.',
  },
}
export const ownSteps = [
  [2, 1, 2],
  [1, 2, 1],
  [1, 1, 2],
  [2, 2, 1],
] as const // what one wrote, what one mended, how one answered

/** Marks in "Reading the toll roll of 1612": steps by the contribution rubric, in the order of names; some with a line. */
export const tollrollSteps = [
  [2, 2, 3, 2],
  [3, 2, 2, 2],
  [1, 2, 2, 2],
  [2, 3, 2, 2],
  [3, 3, 2, 2],
  [2, 1, 2, 1],
  [2, 2, 2, 2],
  [1, 1, 2, 1],
] as const
export const tollrollLetters: Readonly<Record<string, string>> = {
  liv: 'You stopped at the woman who is counted and not named, and then you counted the others like her. Seven. I had never done it.',
  mireille:
    'The hand changes on page five, and you were the only one to see that the sums get better when it does.',
  nico: 'Two of your four notes are jokes, and one of the jokes is the best reading of the word “free” in the margin. Two more like that, please, and none like the other.',
  oona: 'All four of your notes are questions, and three of them were answered by classmates within the day. That is a margin doing its work.',
  idris:
    'Your note on the fishermen’s oath runs longer than the oath. It is right. See whether it can be right in half the length.',
  paz: 'One note, on the painted beam on page six, and a very good one. The other three I would have liked to read.',
  rasmus:
    'You call the clerk careless, and then you show him being careful about exactly one family. Which is it?',
  kadri: 'You sent Illari from page four to page seven, and he thanked you for it there. More of that.',
}

/** Remarks Ines keeps for reuse. */
export const phrases: ReadonlyArray<readonly [text: string, criterion: string | null, uses: number]> = [
  ['Dear {first name},', null, 31],
  ['Set the second ledger beside it, {first name}: what does it not say?', 'Use of evidence', 9],
  [
    'You quote the line and then leave it alone. Ask it one question before you let it go.',
    'Use of evidence',
    7,
  ],
  ['What kind of paper is this, and who was meant to read it? Begin there next time.', 'Use of evidence', 5],
  [
    'Name the classmate you part company with; it is a courtesy, and it sharpens the point.',
    'Builds on others',
    8,
  ],
  ['You let somebody change your mind in public, which is rarer than it should be.', 'Builds on others', 4],
  [
    'A reply that only agrees leaves the other person where they were. What would you add, or take away?',
    'Builds on others',
    6,
  ],
  [
    'Your last sentence is your first thought. Move it up and see what it does to the rest.',
    'Clarity of argument',
    6,
  ],
  ['Two claims in one sentence here. Which of them would you give up first?', 'Clarity of argument', 3],
  ['I read this aloud, and nothing had to be read twice.', 'Clarity of argument', 2],
  ['If Sunday is the trouble, write to me on Friday; we can find another day.', 'Timeliness', 4],
  ['{points} for {criterion}: you were one example away from the next step.', null, 3],
  ['I enjoyed this. Come and argue with me about it on Wednesday.', null, 5],
  ['Read it once more tomorrow, when you are not its author any longer.', null, 2],
]
