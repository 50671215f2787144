/** Meters a menu offers; any other can be typed into a recipe's source. */
export const METERS = [
  '4/4',
  '3/4',
  '2/4',
  '6/8',
  '9/8',
  '12/8',
  '5/4',
  '5/8',
  '7/8',
  '7/8 3+2+2',
  '7/4',
  '11/16',
  '2/2',
] as const;
