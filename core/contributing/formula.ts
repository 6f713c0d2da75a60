/** Commands of TeX that define others, or put tokens together that nobody wrote. */
const DEFINING = [
  'def',
  'gdef',
  'edef',
  'xdef',
  'let',
  'futurelet',
  'global',
  'long',
  'outer',
  'newcommand',
  'renewcommand',
  'providecommand',
  'newenvironment',
  'renewenvironment',
  'DeclareMathOperator',
  'expandafter',
  'noexpand',
  'csname',
  'catcode',
  'makeatletter',
]
const COMMAND = new RegExp(String.raw`\\(?:${DEFINING.join('|')})(?![A-Za-z])`)

/**
 * Whether a formula defines commands. What a formula is drawn as grows with its length only where it cannot: a command
 * that stands for a thousand signs, used a hundred times, fills megabytes.
 */
export const definesCommands = (latex: string): boolean => COMMAND.test(latex)
