const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
]
/** Small numbers as a person says them; figures from thirteen on. */
export const inWords = (n: number): string => NUMBERS[n] ?? n.toLocaleString('en')
