/** Lines that show what can be said. */
export const HINTS: readonly string[] = Object.freeze([
  'accent 2 and 4',
  'right hand to the hi-hat, lefts ghosted',
  'fill 2 bars, close with R L R L',
  'accents to the crash with the kick underneath',
  'second of each double to the kick',
  'double up beat 1',
  'land with the crash',
]);
