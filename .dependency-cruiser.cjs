const { order, floors, sideBySide, rooms } = require('./tools/floors.cjs');

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
      to: { path: '^core/', pathNot: ['/index\\.ts$', '^core/testing/cases\\.ts$'] },
    },
    ...floors.map((floor, i) => ({
      name: `app-floor-${floor}`,
      comment: `app/${floor} knows only what lies below it`,
      severity: 'error',
      from: { path: `^app/${floor}/`, pathNot: '\\.spec\\.ts$' },
      to: { path: `^app/(${[...floors.slice(0, i), '[^/]+\\.ts$', 'testing'].join('|')})` },
    })),
    {
      name: 'app-every-folder-has-its-floor',
      comment: 'a new folder of app is put into the list of floors',
      severity: 'error',
      from: { path: `^app/(?!(${floors.join('|')}|testing)/|main\\.ts$)` },
      to: {},
    },
    ...Object.entries(sideBySide).flatMap(([floor, rooms]) =>
      rooms.map((room) => ({
        name: `${floor}-${room}-alone`,
        comment: `no room of app/${floor} knows another`,
        severity: 'error',
        from: { path: `^app/${floor}/${room}/` },
        to: { path: `^app/${floor}/(?!${room}/)` },
      })),
    ),
    {
      name: 'shown-without-services',
      comment: 'drawings and widgets get what they show and tell what was done: they know core and what schedules',
      severity: 'error',
      from: { path: '^app/(drawings|widgets)/', pathNot: '\\.spec\\.ts$' },
      to: { path: '^app/(knowledge|sound|hits|storage)/|^app/common/.*\\.service\\.ts$' },
    },
    ...rooms.map((room, i) => ({
      name: `bench-room-${room}`,
      comment: `the Bench's ${room} comes before ${rooms.slice(i + 1).join(', ') || 'the Bench itself'}`,
      severity: 'error',
      from: { path: `^app/places/bench/${room}/`, pathNot: '\\.spec\\.ts$' },
      to: { path: `^app/places/bench/(${[...rooms.slice(i + 1), '[^/]+\\.ts$'].join('|')})` },
    })),
    {
      name: 'only-sound-knows-the-audio-clock',
      comment: 'places sound through the player; the transport is looked at, not driven',
      severity: 'error',
      from: { path: '^app/(places|playing|drawings|widgets|common)/', pathNot: '\\.spec\\.ts$' },
      to: {
        path: '^app/sound/',
        pathNot: '^app/sound/(transport\\.service|sound-check|record-player|mixing|backing\\.service)\\.ts$',
      },
    },
    {
      name: 'only-storage-knows-dexie',
      severity: 'error',
      from: { path: '^app/', pathNot: '^app/(storage|testing)/' },
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
