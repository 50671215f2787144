/** The places of the rail. Each keeps its digit for good; places that are not built yet have none here. */
export const PLACES = [
  { digit: 3, path: 'bench', name: 'Bench' },
  { digit: 4, path: 'shelf', name: 'Shelf' },
  { digit: 5, path: 'drill', name: 'Drill' },
  { digit: 6, path: 'log', name: 'Log' },
  { digit: 7, path: 'kit', name: 'Kit' },
] as const;
