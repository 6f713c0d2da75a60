/** Points as people write them: hundredths without needless zeros. 1900 → "19", 1950 → "19.5". */
export const points = (hundredths: number): string => String(hundredths / 100)
