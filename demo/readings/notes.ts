import type { Day } from '../activities'

type Kind = 'note' | 'question' | 'link'
export interface DemoNote {
  readonly by: string
  readonly at: Day
  readonly on: string // words of the text
  readonly kind?: Kind
  readonly to?: string // words of the passage it leads to
  readonly tags?: readonly string[]
  readonly settled?: true
  readonly nods?: readonly string[]
  readonly text: string
  readonly replies?: ReadonlyArray<readonly [by: string, at: Day, text: string]>
}

/** What the class wrote in the margin of the toll roll, passage by passage. */
export const rollNotes: readonly DemoNote[] = [
  // the instructor’s own, to begin with
  { by: 'ines', at: [3, 1, '08:30'], on: 'shall be held to have come for shelter, whatever he says he came for', text: 'Start here. A document that knows better than you why you came. Where else in these five pages is somebody told what they are?' },
  { by: 'ines', at: [3, 1, '08:34'], on: 'that none be asked twice', kind: 'question', text: 'Before you call it a receipt: what could a token buy the second time? See page 8.', replies: [
    ['emrys', [3, 3, '21:40'], 'A second man’s fish. It has no name on it, so it works for whoever is holding it. I would not call that a receipt but a ticket.'],
    ['tomasz', [3, 4, '08:10'], 'I grant the ticket. But then why strike exactly forty? A ticket is printed for the seats there are.'],
    ['kadri', [3, 4, '18:20'], 'Putting you two together: forty seats, and the right to sit in them could be lent. That is what Ines is asking, I think.'],
  ] },
  // preface
  { by: 'abena', at: [3, 1, '12:05'], on: 'The work itself was three years old', kind: 'question', text: 'Three years old at the beginning of the roll, or when this membrane was written? The preface says Michaelmas 1612 and then “with additions until 1634”.', replies: [['malin', [3, 2, '09:15'], 'At the beginning: 1609 and three. But the additions on page 5 mention Lammas, so at least one is from the same summer.']], settled: true },
  { by: 'emrys', at: [3, 2, '22:50'], on: 'Nobody has ever lost it, which is the first suspicious thing about it', text: 'Good. And the second suspicious thing: we have it from the heirs of the lenders.' },
  { by: 'nico', at: [3, 3, '23:20'], on: 'does nothing but cross out', text: 'The only honest job in the office.', nods: ['mireille', 'oona', 'ines'] },
  { by: 'teodora', at: [3, 2, '15:10'], on: 'a word that somebody took the trouble to strike was in somebody’s way', text: 'I should like this on the wall of every archive. It also means that the editor reads against the roll’s own last wish.' },
  { by: 'yusra', at: [3, 2, '10:00'], on: 'The two do not always agree, and the roll does not say which of them it means', text: 'Twelve barrels against the weigh-house. If the difference is one barrel in twelve, then nineteen lasts by the one are more than twenty by the other.', tags: ['measures'] },
  { by: 'femke', at: [3, 2, '10:40'], on: 'whatever the weigh-house said it was', kind: 'question', text: 'Then “last” is not a measure but an office. Is there any place in the roll where it must mean the barrels?', replies: [['yusra', [3, 2, '12:00'], 'One: the tenth basket. Twelve barrels divide by ten only in herring.']] },
  // page 3
  { by: 'idris', at: [3, 1, '19:00'], on: 'the council being present and the guild being heard', text: 'In law these two participles are worlds apart: whoever is present has decided, whoever is heard has merely spoken, and yet it is the one who was heard whose barges will be found to lie under the threshold four paragraphs further down.', replies: [['femke', [3, 2, '10:50'], 'What exactly does “heard” oblige anybody to?'], ['idris', [3, 2, '20:00'], 'To nothing but to have listened, which is why it is written down with such care.']] },
  { by: 'wanjiru', at: [3, 2, '13:30'], on: 'lets go an anchor or a stone', text: 'An insurer would have written the same: it is not the storm that is priced but the decision.', tags: ['risk'] },
  { by: 'liv', at: [3, 2, '17:45'], on: 'the name of him who pays', text: 'Named: the one who pays. Not the one who owns, and not the one who steers. So the roll names money, not people. I am careful here because page 5 has fishermen who pay and are not named.', replies: [['saoirse', [3, 3, '08:05'], 'They pay and are not “him who pays”. That is the sentence I wanted.'], ['rasmus', [3, 3, '20:30'], 'To be fair to the keeper: a name is what one writes when there is a debt to be called in. Fish leave no debt. An institution names what it may have to sue.']] },
  { by: 'oona', at: [3, 2, '16:00'], on: 'whatever he says he came for', kind: 'question', text: 'What might he have said?' , replies: [['nico', [3, 3, '23:30'], '“I was only looking.”']] },
  { by: 'besnik', at: [3, 2, '18:30'], on: 'shall be held to have come for shelter, whatever he says he came for', text: 'In my first language we say: the guest knows less than the house. Here the house writes it down.' },
  { by: 'malin', at: [3, 3, '14:00'], on: 'ring or pile', text: 'The ring is at the head of the mole (glossary). From the stair one sees every hull that makes fast there. Whoever placed the keeper had walked the distance.', tags: ['sight'] },
  { by: 'tomasz', at: [3, 2, '11:30'], on: 'There is no column for what he says', text: 'True; and yet a column for reasons would have been a column for excuses. The clerk spares himself a conversation in every wind. What he loses is that we cannot know how many came to trade.', replies: [['teodora', [3, 3, '15:15'], '“Spares himself a conversation” is what the whole form is for.']] },
  { by: 'anselm', at: [3, 4, '03:12'], on: 'upon the evening she lies', text: 'Written in the evening, when one cannot see the far side of the work. I used to do the lists at a swimming bath. In the evening one writes down who is still there.', nods: ['ines', 'liv', 'kadri'] },
  // page 4
  { by: 'solongo', at: [3, 2, '19:10'], on: 'with her burden in lasts as the rod finds it', text: 'A rod measures depth of hold. Two barges of one depth can differ by a fifth in burden. The rod is chosen for what it cannot see.', tags: ['measures'] },
  { by: 'mireille', at: [3, 2, '21:00'], on: 'a box of two locks, of which the council has one key and the guild the other', text: 'Follow the keys. Whoever gains by the last measuring has only to be at sea with his.', replies: [['yusra', [3, 3, '10:15'], 'And by how much: eleven hulls at four pence the last, nineteen lasts, a hundred nights. About 348 pounds a year for one lost key.'], ['nico', [3, 3, '23:35'], 'Best-paid key in the north.']] },
  { by: 'femke', at: [3, 2, '11:00'], on: 'him who will not be measured', kind: 'question', text: 'Double of what, if nobody has measured him?', replies: [['wanjiru', [3, 3, '13:45'], 'Of what he looks like. It is the oldest premium there is.']], settled: true },
  { by: 'jonas', at: [3, 7, '23:50'], on: 'his rudder be unshipped', text: 'You keep his boat and only take away where it goes.', nods: ['solongo', 'teodora', 'ines', 'henrik'] },
  { by: 'saoirse', at: [3, 3, '08:20'], on: 'The fourth belonged to a widow, and was given back before evening', text: 'She is nameless even in the kindness. Who gave it back? Somebody on that quay was ashamed, and he is not in the commentary.', replies: [['ines', [3, 5, '09:00'], 'Nor, I am sorry to say, in the source. But you are right that I wrote it as if nobody had done it: “was given back”. I have been corrected by my own margin.'], ['teodora', [3, 5, '15:00'], 'The passive, caught in the act.']] },
  // page 5
  { by: 'mireille', at: [3, 1, '20:15'], on: 'four pence the last, whether she break bulk or no', text: 'Then it taxes lying still. What Sundvik sells is the fear of weather.', nods: ['rasmus', 'tomasz', 'wanjiru', 'liv'], replies: [['rasmus', [3, 2, '21:15'], 'And has no reason to tame the bar. A council that lives on shelter will maintain the wall, gladly and for ever, and will leave the shoal outside exactly as dangerous as it is.'], ['tomasz', [3, 3, '09:00'], 'Granted; but a drowned man pays once. They cannot want it too dangerous either.']] },
  { by: 'wanjiru', at: [3, 2, '13:40'], on: 'four pence the last, whether she break bulk or no', text: 'A premium, not a toll: it is due whether or not the loss occurs. The council underwrites the wind and never pays out.', tags: ['risk'] },
  { by: 'yusra', at: [3, 2, '10:20'], on: 'four pence the last, whether she break bulk or no', text: 'Sixty lasts, five nights: a pound exactly. A carpenter at Sundvik earned eleven pence a day that year.' },
  { by: 'illari', at: [3, 3, '06:40'], on: 'four pence the last, whether she break bulk or no', text: 'For those who unload it is all one: if she does not break bulk, we do not eat, and the town is paid all the same.', tags: ['labour'] },
  { by: 'laleh', at: [3, 3, '17:00'], on: 'four pence the last, whether she break bulk or no', text: 'In my town a boat that waits for the water is charged for the mooring and never for the water. Here they have found a way to charge for the water.' },
  { by: 'femke', at: [3, 2, '11:10'], on: 'for that the guild has shown such vessels to ride well enough in the old haven', kind: 'question', text: '“Well enough” for whom? Is that a measure, or a favour?' },
  { by: 'emrys', at: [3, 3, '21:50'], on: 'the guild has shown', text: 'Shown by what? The guild is the witness in its own cause, and the roll takes its word for a fact about water.' },
  { by: 'liv', at: [3, 3, '17:50'], on: 'eleven, of nineteen lasts each', text: 'Eleven hulls, one figure. Who held the rod?', tags: ['measures'], replies: [['nico', [3, 3, '23:40'], 'A guild man. It stopped at nineteen.'], ['solongo', [3, 4, '19:00'], 'Eleven wooden boats cannot all have one burden. Not even two can. This figure was not measured, it was agreed.']] },
  { by: 'abena', at: [3, 2, '12:20'], on: 'measured afresh at Lammas', text: 'Lammas is the first of August; the roll is of Michaelmas. So they were measured after the threshold was known and before it was law. Eight weeks.', nods: ['liv', 'emrys'] },
  { by: 'saoirse', at: [3, 3, '08:30'], on: 'the tenth basket in the herring weeks', text: 'Carried by women; counted as men’s.', nods: ['illari', 'liv'] },
  { by: 'illari', at: [3, 3, '06:50'], on: 'to be set down at the stair', text: 'Somebody sets it down. A tenth basket is also a tenth more walking, and the roll does not pay for the walking.', tags: ['labour'] },
  { by: 'oona', at: [3, 3, '16:10'], on: 'Of these forty are made', kind: 'question', text: 'How many fishermen were there?', replies: [['abena', [3, 3, '19:00'], 'The chapel book of 1611 counts fifty-two boats of the strand. I have the page.']] },
  { by: 'abena', at: [3, 4, '12:00'], on: 'the third night double', kind: 'question', text: 'Double since when? Before the storm of 1611, or only after?', replies: [['kadri', [3, 4, '18:30'], 'From what you wrote on Lammas it must be after: the whole membrane is. So the storm may have taught them what a third night is worth.']] },
  { by: 'teodora', at: [3, 3, '15:30'], on: 'strangers lying for weather', text: 'The only line in which anybody in this town admits that there is weather.' },
  { by: 'besnik', at: [3, 4, '18:00'], on: 'the first night nothing', text: 'This is hospitality. One night you are a guest. The second night you are a customer. I know this house.', nods: ['ines', 'kadri', 'teodora'] },
  { by: 'rasmus', at: [3, 4, '21:00'], on: 'A tithe in fish cannot be borrowed against', text: 'It can, as the commentary says in its very next line: one sells it forward. What it cannot do is stand as security for ten years, which is what stone needs. Herring is a short-term asset in every sense.' },
  { by: 'solongo', at: [3, 4, '19:15'], on: 'its cellar lies three feet below the quay', text: 'Three feet under floods at every spring tide. Nobody kept salt there.', replies: [['malin', [3, 5, '13:00'], 'Unless the quay was raised afterwards. On the map of 1702 it stands a step higher.'], ['solongo', [3, 5, '19:30'], 'Then three feet is our number and not theirs. Good. I take it back as far as 1702.']] },
  { by: 'oona', at: [3, 4, '16:20'], on: 'Those who paid in coin stand in the roll by name, those who paid in herring by number', kind: 'question', text: 'Is that a rank, or only a way of filing?' },
  { by: 'kadri', at: [3, 4, '18:40'], on: 'Thirty-one are accounted for; nine are not', kind: 'link', to: 'Thirty-one have been found', text: 'The places are on page 8. Nineteen under the stair is where one would drop them; seven in a hem is where one would keep them.', replies: [['mireille', [3, 5, '20:00'], 'Seven in one hem is a business.']] },
  { by: 'petra', at: [3, 5, '08:59'], on: 'who have no coin before Michaelmas', text: 'I am late with this, as they were. The roll is made on the one day on which they could have paid in coin.' },
  // page 6
  { by: 'tomasz', at: [3, 3, '11:40'], on: 'for that they carried the stone', text: 'I had wanted this to be a swindle. But it is a wage: they carried, the town had nothing, and it paid in nights. What turns it into a swindle is only page 5, where the wage is dressed as a measurement.', replies: [['mireille', [3, 3, '20:40'], 'A wage with no end date. Show me the stone that takes twenty-two years to carry.'], ['tomasz', [3, 4, '08:30'], 'Conceded. I keep “wage” until 1620 and give you the rest.']] },
  { by: 'nico', at: [3, 3, '23:45'], on: 'free hull, free hull, free hull, and so to the eleventh', kind: 'link', to: 'eleven, of nineteen lasts each', text: 'Counting sheep. The clerk was trying to get to sleep.' },
  { by: 'idris', at: [3, 3, '19:20'], on: 'the ferryman to carry the council and their letters for nothing', text: 'A penny for the year and a service without limit, so that the smaller his due appears the larger is the right that the town has taken in exchange for it.' },
  { by: 'saoirse', at: [3, 3, '08:40'], on: 'that they stand above the ninth step and cry no price before the bell', text: 'Dry feet and no voice. It could be kindness or control, and I do not think anybody asked them which.', tags: ['women'], nods: ['oona', 'liv', 'teodora'], replies: [['malin', [3, 4, '13:20'], 'Above the ninth step one sees over the quay but cannot see into the boats. They were placed where they could not see the fish.'], ['liv', [3, 4, '17:20'], 'Counted, and told where to stand, and not named: so there is a fourth kind. I did not have that in my three.']] },
  { by: 'yusra', at: [3, 4, '10:30'], on: 'cry no price before the bell', text: 'A market rule: one price, one moment. It protects buyers who cannot be there at five. It costs those whose fish was fresh at four.' },
  { by: 'oona', at: [3, 4, '16:30'], on: 'that she first come ashore', kind: 'question', text: 'Why “she”, all of a sudden?', replies: [['saoirse', [3, 5, '08:00'], 'Because it was. It is the only pronoun in the roll that tells the truth by accident.']] },
  { by: 'illari', at: [3, 4, '06:30'], on: 'the women at the stair who carry for hire', text: 'For hire: so somebody paid them. It is not the town, or there would be a line for it.', tags: ['labour', 'women'] },
  { by: 'laleh', at: [3, 4, '17:10'], on: 'lie free on the inner side', text: 'The calm side is the guild’s. In my town, too, one can tell who is who by where the water is flat.' },
  { by: 'femke', at: [3, 4, '11:00'], on: 'Somebody was counting aloud', kind: 'question', text: 'Or somebody was being counted to. Can the hand show which?' },
  // page 7
  { by: 'mireille', at: [3, 4, '20:30'], on: 'the third part to the town, for its trouble', text: 'There it is. A third for nothing that has a name. I shall use “for its trouble” on my own invoices.', nods: ['nico', 'yusra'] },
  { by: 'rasmus', at: [3, 4, '21:20'], on: 'in the order in which they lent', text: 'The order matters more than the share. In a bad year the first of them is paid and the last is not, so the roll ranks its creditors by how early they had believed. I know of no more elegant way to make people hurry.' },
  { by: 'wanjiru', at: [3, 5, '13:50'], on: 'the widow of a lender has his place in the order', text: 'The only women with a place in this roll have it from the dead.', tags: ['women'], replies: [['saoirse', [3, 5, '18:10'], '“But not her second husband.” They had thought about it for longer than about the stair.']] },
  { by: 'besnik', at: [3, 5, '18:00'], on: 'in a voice that can be heard from the stair to the ring', text: 'Who cannot read hears it once in a year. Who can read has it in a box. Also this is a threshold.', nods: ['ines'] },
  { by: 'jonas', at: [3, 7, '23:55'], on: 'A roll that is read aloud need not be shown', text: 'Nobody hears an eleven crossed out.' , replies: [['ines', [4, 1, '08:00'], 'Late, brief, and the best line in this margin. I have put it on Wednesday’s page.']] },
  // tokens
  { by: 'emrys', at: [3, 5, '22:00'], on: 'two in the hand of the council’s own clerk, who fished for nobody', text: 'This is told too well. Who found them, in what year, and who was watching?' },
  { by: 'paz', at: [3, 2, '09:30'], on: 'They are the size of a thumbnail', text: 'In my grandmother’s market there were such things for the toilet. You gave it back when you left.' },
]

/** What has been written in the margin of the article up to now: it is open until Sunday. */
export const calmNotes: readonly DemoNote[] = [
  { by: 'ines', at: [6, 1, '08:10'], on: 'who is let into that place, and for how long', text: 'Two questions in one half-sentence. Hold on to the second: most of what we have read answers only the first.' },
  { by: 'ines', at: [6, 1, '08:14'], on: 'A chain is the most honest of the three, because it can be seen to be shut', kind: 'question', text: 'Is it? Say what would have to be true of honesty for this to follow.', replies: [['femke', [6, 2, '10:30'], 'That it is a property of things and not of people. A chain cannot lie. A man who says “the windlass is stuck” can.'], ['idris', [6, 2, '19:30'], 'And that what can be seen to be shut is seen by those whom it shuts out, which at Qasr el-Mina, where the chain lay under water when it was open, was true for exactly half of the day.']] },
  { by: 'solongo', at: [6, 1, '19:20'], on: 'every night wears a cable', text: 'About one part in three hundred in a swell, for hemp. Somebody at anchor for a season has bought a new one.' },
  { by: 'wanjiru', at: [6, 1, '13:30'], on: 'a place where waiting costs less', text: 'The definition of a harbour I should have needed in week four.', nods: ['yusra', 'mireille'] },
  { by: 'emrys', at: [6, 1, '22:10'], on: 'nobody at the stair in a north wind has ever asked to see the accounts', text: 'A lovely sentence, and not evidence. Who says that nobody asked? The quarrel registers of Sundvik are lost.', replies: [['tomasz', [6, 2, '09:10'], 'Agreed as to evidence. As to the point: a thing can be likely enough to begin from and still not be attested.'], ['emrys', [6, 2, '22:00'], 'Then let it say “likely”.']] },
  { by: 'mireille', at: [6, 1, '20:40'], on: 'the town, which had no coin left, paid in nights', text: 'Then put a figure on a night. Eleven hulls, nineteen lasts, four pence: nearly three and a half pounds, every calm evening, for ever.', replies: [['yusra', [6, 2, '10:10'], '£3 9s 8d. I checked. And nobody signed for it.']] },
  { by: 'tomasz', at: [6, 2, '09:00'], on: 'The dishonest part was not the gift. It was the measuring', text: 'This is what I tried to say in the toll roll and could not. A gift may be unjust and still be honest about itself.', nods: ['kadri', 'ines'] },
  { by: 'liv', at: [6, 2, '17:30'], on: 'the gift was made to look like a fact about ships', kind: 'question', text: 'Does it matter who wrote the figure down first, the guild or the clerk? I think I would judge the two differently.' },
  { by: 'laleh', at: [6, 2, '17:00'], on: 'what lay between them was opened by words', text: 'Ours is opened by a man who whistles. Nobody has ever asked him to swear.' },
  { by: 'idris', at: [6, 1, '20:20'], on: 'the two oaths leaned on each other like the moles', text: 'An oath that rests upon another oath binds neither party once one of them has died, and the fever saw to that; the law of Port Amara, so far as we have it, provides for a pilot who breaks his word and not for one who takes it with him.' },
  { by: 'teodora', at: [6, 2, '15:00'], on: 'for the waiting, if not for the water', text: 'Somebody wrote that who could write. I hear a widow dictating and a clerk improving.', replies: [['saoirse', [6, 2, '18:20'], 'Or a widow improving, and a clerk who could not help it.']] },
  { by: 'saoirse', at: [6, 2, '18:10'], on: 'asks to be paid for an absence', text: 'They were owed for an absence already. It is what a widow’s share is.', nods: ['teodora', 'liv', 'ines'] },
  { by: 'malin', at: [6, 2, '12:40'], on: 'climbed to the room above it', text: 'From that window one sees the chain and the two men, and no ship: I have drawn it. The interpreter never saw what he was told about.', tags: ['sight'] },
  { by: 'oona', at: [6, 1, '16:30'], on: 'Not one of them says that the chain should not be there', kind: 'question', text: 'Was there a form on which one could have said it?', nods: ['emrys', 'femke', 'ines'] },
  { by: 'besnik', at: [6, 2, '18:40'], on: 'people quarrel about the price', text: 'When they quarrel about the price they have already agreed. This I learnt in two languages.' },
  { by: 'kadri', at: [6, 2, '10:50'], on: 'they quarrel about the truth', kind: 'link', to: 'The dishonest part was not the gift', text: 'The two halves of the article hold hands here: measuring, oath, favour are the three towns in order.' },
  { by: 'nico', at: [6, 1, '23:10'], on: 'The answer has no monument', text: 'It has a bench. In every harbour I know there is a bench.', nods: ['anselm', 'kadri'] },
  { by: 'abena', at: [6, 2, '11:10'], on: 'women, above the ninth step', kind: 'question', text: 'Dates, please: the ninth step is 1612, the widows are 1649, the register begins in 1702. Are these really one list?', replies: [['kadri', [6, 2, '20:10'], 'As evidence, three lists. As an argument, one. I think she means the second and should say so.']] },
  { by: 'illari', at: [6, 2, '06:20'], on: 'A harbour is a place where some may wait for nothing, so that others may be charged for it', text: 'And where a third kind is paid by the hour to be there when the waiting ends.', nods: ['saoirse', 'mireille', 'solongo'] },
  { by: 'rasmus', at: [6, 2, '20:40'], on: 'so that others may be charged for it', text: 'The “so that” does all the work. One can believe that some wait free and that others pay without believing that the one is for the sake of the other; councils, in my experience of their minutes, are rarely that purposeful, and what looks like a plan is more often two committees.', replies: [['mireille', [6, 3, '08:00'], 'Two committees with one chest.']] },
  { by: 'yusra', at: [6, 2, '09:50'], on: 'There are six hundred and twelve such complaints', text: 'Over twenty-nine years: twenty-one a year, one every seventeen days. Less than I had imagined. How many ships?' },
]
/** What the instructor has put beside the transcript, before it opens. */
export const pilotNotes: readonly DemoNote[] = [
  { by: 'ines', at: [6, 1, '16:00'], on: 'I was nine', text: 'Keep this sentence beside everything he says about the council.' },
  { by: 'ines', at: [6, 1, '16:05'], on: 'They say', kind: 'question', text: 'Who are “they”? Mark each place where he stops having seen it himself.' },
]
