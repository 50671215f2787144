// The order in which core's folders may know each other: each may import from those before it, never after.
const order = [
  'base',
  'time',
  'stroke',
  'rudiments',
  'pattern',
  'recipe',
  'words',
  'kit',
  'reach',
  'sticking',
  'variants',
  'drill',
  'playback',
  'rendition',
  'take',
  'player',
  'plan',
  'log',
  'score',
  'listen',
  'shelf',
  'formats',
];
const places = ['today', 'listen', 'bench', 'shelf', 'drill', 'log', 'kit', 'visit'];
// The rooms of the Bench, in the order in which they may know each other: what is on it, the ribbon, the recipe, what
// follows from it, what lies over it.
const rooms = ['document', 'ribbon', 'recipe', 'answers', 'sheets'];

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(app|server|demo|bench|tools)/' },
    },
    {
      name: 'core-package-list',
      comment: 'core/ may use these pure packages and no other',
      severity: 'error',
      from: { path: '^core/', pathNot: ['\\.spec\\.ts$', '^core/testing/'] },
      to: {
        path: 'node_modules/',
        pathNot: 'node_modules/(@sinclair/typebox|ts-fsrs|midi-file|saxes|xmlchars|fflate|music-tempo|fft\\.js)/',
      },
    },
    ...order.map((folder, i) => ({
      name: `core-order-${folder}`,
      comment: `core/${folder} comes before ${order.slice(i + 1).join(', ')}`,
      severity: 'error',
      from: { path: `^core/${folder}/` },
      to: { path: `^core/(${order.slice(i + 1).join('|') || 'nothing'})/` },
    })),
    {
      name: 'core-through-index',
      comment: "another core folder's public face is its index.ts",
      severity: 'error',
      from: { path: '^core/([^/]+)/', pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/[^/]+/', pathNot: ['^core/$1/', '/index\\.ts$'] },
    },
    {
      name: 'others-through-index',
      severity: 'error',
      from: { path: '^(app|server|demo|bench)/' },
      to: { path: '^core/', pathNot: '/index\\.ts$' },
    },
    {
      name: 'ui-is-presentational',
      comment: 'app/ui imports core and nothing else of app',
      severity: 'error',
      from: { path: '^app/ui/' },
      to: { path: '^app/', pathNot: '^app/(ui|testing)/' },
    },
    ...places.map((place) => ({
      name: `place-${place}-alone`,
      comment: 'a place never imports another place',
      severity: 'error',
      from: { path: `^app/${place}/` },
      to: { path: `^app/(${places.filter((p) => p !== place).join('|')})/` },
    })),
    ...rooms.map((room, i) => ({
      name: `bench-room-${room}`,
      comment: `the Bench's ${room} comes before ${rooms.slice(i + 1).join(', ') || 'the Bench itself'}`,
      severity: 'error',
      from: { path: `^app/bench/${room}/`, pathNot: '\\.spec\\.ts$' },
      to: { path: `^app/bench/(${[...rooms.slice(i + 1), '[^/]+\\.ts$'].join('|')})` },
    })),
    {
      name: 'playing-knows-no-place',
      comment: 'the player and its parts are shared: they know what sounds, not where it is shown',
      severity: 'error',
      from: { path: '^app/playing/' },
      to: { path: `^app/(${places.join('|')}|shell)/` },
    },
    {
      name: 'exchange-knows-no-place',
      comment: 'what is brought in and taken along is shared by the places',
      severity: 'error',
      from: { path: '^app/exchange/' },
      to: { path: `^app/(${places.join('|')})/` },
    },
    {
      name: 'only-audio-knows-the-audio-clock',
      comment: 'places sound through the player; the transport is looked at, not driven',
      severity: 'error',
      from: { path: `^app/(${places.join('|')}|playing|ui)/`, pathNot: '\\.spec\\.ts$' },
      to: {
        path: '^app/audio/',
        pathNot: '^app/audio/(transport\\.service|sound-check|record-player|mixing|backing\\.service)\\.ts$',
      },
    },
    {
      name: 'only-data-knows-dexie',
      severity: 'error',
      from: { path: '^app/', pathNot: '^app/(data|testing)/' },
      to: { path: 'node_modules/dexie/' },
    },
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    { name: 'not-to-unresolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
    { name: 'server-not-app', severity: 'error', from: { path: '^server/' }, to: { path: '^app/' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.app.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      mainFields: ['module', 'main', 'types'],
      extensions: ['.ts', '.mjs', '.js', '.json', '.d.ts'],
    },
  },
};
