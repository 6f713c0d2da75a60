/** A name for a file that tells nothing but its form: the label, and the ending of its own name. */
export function neutralName(label: string, name: string): string {
  const ending = /\.[a-z0-9]{1,5}$/i.exec(name)?.[0].toLowerCase() ?? ''
  return label + ending
}
