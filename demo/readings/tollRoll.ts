/** One page of the printed edition: what the roll says, and what its editor says about it. */
export interface RollPage {
  readonly section: string | null
  readonly runner: string
  readonly roll: readonly string[]
  readonly commentary: readonly string[]
}

export const TOLL_ROLL = { title: 'The Toll Roll of Sundvik, 1612', credit: 'edited for this seminar from the town’s chest, with a commentary' }

/** The toll roll, invented, as an edition of ten pages; what stands between underscores is in another hand. */
export const tollRoll: readonly RollPage[] = [
  { section: 'Preface', runner: 'preface', roll: [], commentary: [
    'The toll roll of Sundvik is four membranes of parchment, sewn head to tail, and a little under three ells long. It was begun at Michaelmas 1612 and was in use, with additions, until the storm of 1634. Nobody has ever lost it, which is the first suspicious thing about it.',
    'It lists what is to be paid behind the new work by hulls, by fishermen, by strangers and by the town itself, and it does so in the present tense, as if harbours had always been charged for. The work itself was three years old.',
    'We print membranes two to four whole. The first is a list of creditors in the order of their loans and has been printed before, by their descendants.',
  ] },
  { section: null, runner: 'preface', roll: [], commentary: [
    'Three hands can be told apart. The first writes slowly and rules its lines. The second is quicker, uses a browner ink, and writes only in margins and between lines. The third comes late and does nothing but cross out.',
    'The editor has kept the spelling of names and modernised the rest. Where the second hand adds words they stand in italics. Where the third crosses them out we print them all the same: a word that somebody took the trouble to strike was in somebody’s way.',
    'Measures: a last is taken as twelve barrels of herring, or whatever the weigh-house said it was. The two do not always agree, and the roll does not say which of them it means.',
  ] },
  { section: 'The roll', runner: 'second membrane', roll: [
    'This is the roll of what is owed to the town of Sundvik for lying behind the new work, made at Michaelmas in the year 1612, the council being present and the guild being heard.',
    'First, that whoever comes in under sail, and lets go an anchor or a stone or makes fast to ring or pile, shall be held to have come for shelter, whatever he says he came for.',
    'Item, that the keeper of the stair shall write each hull upon the evening she lies, with her burden in lasts as the rod finds it, and the name of him who pays.',
  ], commentary: [
    'A toll is usually taken on goods. This one is taken on an intention, and the intention is presumed. Whoever anchors has come for shelter “whatever he says”. There is no column for what he says.',
    'The guild was “heard”, the council “present”. Nobody is said to have agreed.',
  ] },
  { section: null, runner: 'second membrane', roll: [
    'Item, that the rod be kept in the weigh-house in a box of two locks, of which the council has one key and the guild the other, and that no hull be measured but before both.',
    'Item, of him who will not be measured, double.',
    'Item, of him who is measured and will not pay, that his rudder be unshipped and laid upon the quay until he does.',
  ], commentary: [
    'Two locks are a promise that neither keeper trusts the other. It is also a way of not measuring: for as long as one key is mislaid, every hull is what she was last time.',
    'We know of four rudders laid on the quay. Three belonged to strangers. The fourth belonged to a widow, and was given back before evening.',
  ] },
  { section: null, runner: 'third membrane', roll: [
    'Item, of every hull above twenty lasts that lies a night behind the new work, four pence the last, whether she break bulk or no; and of every hull of twenty lasts and under, nothing, for that the guild has shown such vessels to ride well enough in the old haven. _In another hand:_ the guild’s barges, measured afresh at Lammas, eleven, of nineteen lasts each.',
    'Item, of the fishermen of the strand, who have no coin before Michaelmas, the tenth basket in the herring weeks, to be set down at the stair; and each man to have a token of lead, struck with a mole and a star, that none be asked twice. Of these forty are made.',
    'Item, of strangers lying for weather, the first night nothing; the second as the others; the third night double.',
  ], commentary: [
    'The rate falls on shelter, not on trade: a ship that sold nothing paid as much as one that emptied her hold. A tithe in fish cannot be borrowed against, and the council, in debt since 1609, must have sold the catch forward to somebody with salt and a dry floor. No contract survives. The house called the Anchor does, and its cellar lies three feet below the quay.',
    'The tokens are the roll’s one promise to the poorer sort. Thirty-one are accounted for; nine are not. Those who paid in coin stand in the roll by name, those who paid in herring by number.',
  ] },
  { section: null, runner: 'third membrane', roll: [
    'Item, of the barges of the guild, that they lie free on the inner side, for that they carried the stone. _In another hand:_ free hull, free hull, free hull, and so to the eleventh.',
    'Item, of the ferry, one penny at the opening of the year, and the ferryman to carry the council and their letters for nothing.',
    'Item, of the women at the stair who carry for hire, that they stand above the ninth step and cry no price before the bell.',
    'Item, of any who sells from a boat, that she first come ashore.',
  ], commentary: [
    'The only women in the roll are told where to stand. The ninth step is the one that is wet at spring tide.',
    '“For that they carried the stone” is the single place where the roll gives a reason that lies in the past. It gives it for those who pay nothing.',
    'The second hand wrote “free hull” eleven times, once for each barge, although once would have been enough. Somebody was counting aloud.',
  ] },
  { section: null, runner: 'fourth membrane', roll: [
    'Item, that of all this the third part goes to those who lent, in the order in which they lent; the third part to the keeping of the work; and the third part to the town, for its trouble.',
    'Item, that the widow of a lender has his place in the order, and her children have it after her, but not her second husband.',
    'Item, that this roll be read aloud upon the quay each Michaelmas, in a voice that can be heard from the stair to the ring.',
  ], commentary: [
    'A third for those who lent, a third for the stones, a third “for its trouble”: nobody ever defined the town’s trouble, and it was never repaid in full.',
    'Read aloud from stair to ring, a hundred and forty paces. A roll that is read aloud need not be shown.',
  ] },
  { section: 'Tokens, glossary', runner: 'the tokens', roll: [], commentary: [
    'Forty tokens of lead were struck in the summer of 1612, with a mole on one side and a star on the other. They are the size of a thumbnail and weigh a little less than a herring’s head.',
    'Thirty-one have been found: nineteen under the stair, seven sewn into the hem of a coat, three in the drowned, and two in the hand of the council’s own clerk, who fished for nobody.',
    'What a token bought the first time is clear: nothing was asked. What it could buy a second time is the question. A receipt that does not say who paid can be lent.',
  ] },
  { section: null, runner: 'glossary', roll: [], commentary: [
    'Break bulk: to open the hold and begin to unload. Herring weeks: from St James to Michaelmas. Inner side: the lee of the new work, where it is calm. Lammas: the first of August, seven weeks before the roll was made.',
    'Ring: the iron at the head of the mole, now under the road. Stair: eighteen steps from quay to water, of which the lowest nine are the sea’s. Trouble: see page 7.',
  ] },
  { section: null, runner: 'afterword', roll: [], commentary: [
    'The storm of 1634 took the outer third of the work and the keeper’s hut with it. The roll was in the weigh-house, in the box of two locks. For eleven days nobody could open it, because one key was on the mole.',
    'When it was opened there was one entry more than anybody remembered. It is in the second hand, and it is the date.',
  ] },
]
