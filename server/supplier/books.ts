/** A page of a printed book: its paragraphs. */
type Page = readonly string[]
export interface Book {
  readonly id: string
  readonly title: string
  readonly author: string
  readonly summary: string
  readonly chapters: ReadonlyArray<{ readonly title: string; readonly pages: readonly Page[] }>
}

/** Invented books, so that choosing chapters and pages of a licensed text can be tried without one. */
export const BOOKS: readonly Book[] = [
  {
    id: 'the-price-of-shelter',
    title: 'The Price of Shelter',
    author: 'Hedda Brandvold-Kerr',
    summary: 'How three harbours learnt to charge for calm water.',
    chapters: [
      {
        title: 'Calm water',
        pages: [
          [
            'A harbour sells one thing, and it is not trade. It sells the difference between the sea outside and the water within. For as long as that difference was a gift of the coast nobody could charge for it: a bay has no gatekeeper.',
            'The moment a town puts stones in the way of the waves the difference has a date, a cost and a name. Whoever paid for the stones will ask who lies behind them.',
          ],
          [
            'In Sundvik the asking began before the work was dry. The council borrowed in 1609 and named its creditors in the order of their loans, which is also the order in which they later wished to be repaid. What they were promised was not a share of the harbour but a share of the weather: each night that a hull lay behind the new work would be worth four pence a last.',
            'Nobody in the town had thought of weather as something that could be lent against. By 1612 everybody had.',
          ],
          [
            'It is easy to read the toll roll as a tariff. It is better read as a contract between those who had money in 1609 and those who would need shelter afterwards. The two were seldom the same people, and the second were not asked.',
          ],
        ],
      },
      {
        title: 'The measure of a hull',
        pages: [
          [
            'A last is a weight, a volume or a favour, depending on who holds the rod. The guild’s eleven barges were measured at nineteen lasts when the toll began at twenty, and nobody recorded the names of those who measured.',
            'I have looked for the rod. It was kept in the weigh-house, in a box with two locks, and the guild held one of the keys.',
          ],
          [
            'Port Amara measured by displacement, with a marked plank at the inner mole, because its pilots would not sign for a figure they had not seen the water give. The plank was cut away twice, in 1611 and again in the fever year.',
            'Each time it was renewed at the pilots’ cost. A measure that nobody can lean on is worth paying for, it seems, to those who are not of the guild.',
          ],
          [
            'So there are two honest ways to tax a ship: by what she is, and by what she does to the water. And there is a third, which is to tax her by who owns her. It needs no instrument at all.',
          ],
        ],
      },
      {
        title: 'Those who paid in fish',
        pages: [
          [
            'The tenth basket in the herring weeks: the roll gives the fishermen of the strand one line, and that line has no names in it. Coin is entered under the payer. Fish is entered under the week.',
            'I do not think that anybody meant to leave them out. The book had a column for names, and a basket does not sign.',
          ],
          [
            'Who carried the basket? The petition of 1687 speaks of women at the stair “with the tithe upon their heads”. They were counted neither as payers nor as porters. They were counted, if at all, as baskets.',
          ],
          [
            'A harbour that is paid for in coin remembers its creditors. A harbour that is paid for in fish remembers the season. Of the second kind of memory very little has come down to us, and most of that is salt.',
          ],
        ],
      },
    ],
  },
  {
    id: 'interpreters-of-the-quay',
    title: 'Interpreters of the Quay',
    author: 'Samir Oduya-Lindqvist',
    summary: 'An office at Qasr el-Mina between 1702 and 1731, and what it wrote down.',
    chapters: [
      {
        title: 'The office',
        pages: [
          [
            'The interpreter’s office at Qasr el-Mina was a room of four paces by five above the chain-house. It had one window, and the window looked on the chain.',
            'Nobody could bargain in the harbour without passing under it, and nobody could complain without climbing to it. That was the whole of its authority.',
          ],
          [
            'Its register runs from 1702 to 1731. There are six hundred and twelve quarrels in it, each on half a page: who said what, in which tongue, and what the interpreter said that they had said.',
            'The last is the only column that is never empty.',
          ],
        ],
      },
      {
        title: 'What was said',
        pages: [
          [
            'When two captains quarrel through a third person, there are three quarrels, and only one of them is written down. A reader of the register has to keep the other two in mind.',
            'I have come to think that the interpreter did, too: here and there a word stands between two strokes, as if it were being held at arm’s length.',
          ],
          [
            'One of those words is “shelter”. The captain from the north used it for the water; the harbour-master used it for the permission. They were quarrelling for a whole morning before somebody saw that they agreed.',
          ],
          [
            'It would be pleasant to end there. But the register says that the fee was doubled all the same, “for the time it took”.',
          ],
        ],
      },
    ],
  },
]
