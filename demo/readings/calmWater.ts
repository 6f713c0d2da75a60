/** An invented article, in Markdown, as an instructor would add it. */
export const CALM_WATER = { title: 'Who may wait? Three harbours and their calm water', credit: 'Maren Oyelaran-Voss, invented for this seminar' }
export const calmWater = `# Who may wait? Three harbours and their calm water

A ship that waits is a ship that costs. Every day at anchor eats bread, and every night wears a cable. What a harbour offers is not an end to waiting but a place where waiting costs less, and the history of harbours is the history of who is let into that place, and for how long.

I take three towns. They are unlike in everything but this: each built, or stretched, or simply declared something across its own mouth, and then had to say to whom it was open.

## Sundvik: the wall

At Sundvik the thing was a wall of stone, begun in 1609. It was built with borrowed money, and so it had to earn. The toll that it earned was written as a price of safety, and safety is hard to refuse; nobody at the stair in a north wind has ever asked to see the accounts.

Yet there was an exemption, and it was exactly as large as eleven barges. It has been called corruption. I should rather call it *a receipt*: the guild had carried the stone, and the town, which had no coin left, paid in nights. The dishonest part was not the gift. It was the measuring, by which the gift was made to look like a fact about ships.

## Port Amara: the oath

Port Amara has two moles, and what lay between them was opened by words. The pilots swore in 1588 that no vessel should wait for want of one of them, and the town swore that no vessel should come in without. So the two oaths leaned on each other like the moles.

In the fever year that arrangement failed from the side nobody had watched. Ships lay outside because the pilots were dying, and the widows, who held shares in the dues, petitioned that the dues be taken all the same: *for the waiting, if not for the water*. It is the only petition I know that asks to be paid for an absence.

## Qasr el-Mina: the chain

A chain is the most honest of the three, because it can be seen to be shut. It was lowered by two men with a windlass, and a captain who thought himself wronged climbed to the room above it and complained through an interpreter. There are six hundred and twelve such complaints. Not one of them says that the chain should not be there.

Perhaps that is what honesty buys. Where the barrier is plain, people quarrel about the price; where it is written as something else, a measure, an oath, a favour, they quarrel about the truth.

## What waiting shows

We are used to asking who built a harbour and who traded in it. I suggest that we ask who waited. The answer has no monument. It stands in the margins: strangers, the third night double; widows, after the lenders; women, above the ninth step; fish, under the week.

A harbour is a place where some may wait for nothing, so that others may be charged for it.[^1]

[^1]: I owe this sentence to a student, who asked not to be named and has been waiting for me to ask twice.
`
