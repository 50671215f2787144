// How the house is built: the lists that the dependency rules check and that the picture of the floors is drawn from.
// The order in which core's folders may know each other: each may import from those before it, never after.
const order = [
  'base',
  'time',
  'stroke',
  'rudiments',
  'pattern',
  'selection',
  'recipe',
  'language',
  'kit',
  'reach',
  'sticking',
  'variants',
  'compose',
  'drill',
  'playback',
  'rendition',
  'take',
  'player',
  'plan',
  'log',
  'lesson',
  'teaching',
  'score',
  'listen',
  'shelf',
  'map',
  'show',
  'usage',
  'formats',
];
// The floors of app, from the top: each knows those below it, never one above.
const floors = [
  'start',
  'places',
  'exchange',
  'playing',
  'guide',
  'drawings',
  'widgets',
  'common',
  'knowledge',
  'sound',
  'hits',
  'storage',
  'environment',
];
/** What stands side by side on a floor: no room of it knows another. */
const sideBySide = {
  places: ['today', 'listen', 'bench', 'shelf', 'shows', 'lessons', 'drill', 'play', 'log', 'kit', 'visit'],
  // The staff knows nothing of the ribbon, nor the plan of the kit of either.
  drawings: ['ribbon', 'staff', 'kit-plan'],
};

// The rooms of the Bench, in the order in which they may know each other: what is on it, the ribbon, the recipe, what
// follows from it, what lies over it.
const rooms = ['document', 'ribbon', 'recipe', 'answers', 'sheets'];

module.exports = { order, floors, sideBySide, rooms };
