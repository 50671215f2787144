import type { Page } from '@playwright/test';
import { expect, goWithin, settled, test, written } from './fixture';

const MOST = 7_258_118_400_000;
const phrase = (id: string, part: object = {}): object => ({
  id,
  name: id,
  family: 'fill',
  recipe: { source: { kind: 'typed', text: 'R l l K', meter: '4/4', grid: 1260 }, moves: [] },
  tempo: 90,
  goal: 100,
  note: '',
  created: 0,
  changed: 0,
  ...part,
});
const attempt = (id: string, of: string, part: object = {}): object => ({
  id,
  phrase: of,
  at: 0,
  bpm: 80,
  goal: 100,
  loops: 4,
  seconds: 9,
  verdict: 'clean',
  ...part,
});
const recipe = (text: string, meter = '4/4', grid = 1260, moves: object[] = []): object => ({
  recipe: { source: { kind: 'typed', text, meter, grid }, moves },
});
const drill = (of: string): object => ({
  id: `d-${of}`,
  phrase: of,
  plan: { start: 400, goal: 20, step: 100, loops: 64 },
  rungs: [400],
  rung: 0,
  phase: 'judging',
  loops: 10_000,
  early: true,
  messy: 2,
  tryBegan: MOST,
  attempts: [],
});

/** Files that the reader accepts although nobody would make them. */
const FILES: readonly (readonly [string, object])[] = [
  [
    'times at both ends, phrases that are each other’s parents, names of signs',
    {
      phrases: [
        phrase('a', { parent: { id: 'b', change: 'x' }, changed: MOST, created: MOST }),
        phrase('b', { parent: { id: 'a', change: '' }, name: '‮\u200b🥁' + 'n'.repeat(9000) }),
        phrase('c', { parent: { id: 'c', change: 'itself' }, tags: ['x'.repeat(40)], note: '\u0000\u0007'.repeat(50) }),
      ],
      attempts: [attempt('1', 'a', { at: MOST }), attempt('2', 'a', { at: 0, seconds: 1e7, loops: 10_000 })],
    },
  ],
  [
    'measures at their bounds, a drill beyond reason, drills and tries whose phrase is gone',
    {
      phrases: [phrase('a', { goal: 20, tempo: 400 })],
      attempts: [
        attempt('1', 'a', {
          bpm: 400,
          measured: {
            mean: 1e7,
            spread: 1e7,
            missed: 100_000,
            extra: 100_000,
            strokes: 0,
            drift: -1e7,
            limbs: [],
            finding: { kind: 'earlier', words: 'x'.repeat(300), fix: 'late', stage: null },
          },
        }),
        attempt('2', 'gone'),
      ],
      drills: [drill('a'), drill('gone')],
    },
  ],
  [
    'recipes without sense: no strokes, no meter, 64 moves, a long bar',
    {
      phrases: [
        phrase('a', recipe('')),
        phrase('b', recipe('nonsense ((((', '99/7')),
        phrase('c', recipe('-', '32/2', 105)),
        phrase(
          'd',
          recipe(
            'R L',
            '11/16',
            720,
            Array.from({ length: 64 }, (_, i) => ({ id: `m${i}`, on: true, move: 'mirror', params: { feet: true } })),
          ),
        ),
        phrase('e', { recipe: { source: { kind: 'rudiment', id: 'none', meter: '4/4', grid: 1260 }, moves: [] } }),
      ],
      attempts: ['a', 'b', 'c', 'd', 'e'].map((id) => attempt(`t${id}`, id)),
    },
  ],
  [
    'boards of what is gone, takes of nothing, removals of everything',
    {
      version: 2,
      phrases: [phrase('a')],
      attempts: [attempt('1', 'a')],
      takes: [{ id: '1', phrase: 'a', at: 0, bpm: 20, stage: null, hits: [] }],
      boards: [
        { id: 'x', name: 'Gone', question: null, phrases: ['gone', 'a'], place: -1e9, changed: 0 },
        { id: 'y', name: '?', question: 'like nobody between 900 and 1', phrases: [], place: 1e9, changed: MOST },
      ],
      removals: [{ id: 'z', at: MOST, phrase: phrase('z') }],
      states: [{ id: 's', phrase: 'a', at: MOST, state: phrase('a', { name: 'Before' }) }],
    },
  ],
];

async function walk(page: Page, ids: readonly string[]): Promise<void> {
  const paths = [
    '/shelf',
    ...ids.flatMap((id) => [`/bench/${id}`, `/drill/${id}`, `/log?phrase=${id}`]),
    '/drill',
    ...['kit', 'hands', 'devices', 'data'].map((part) => `/kit?part=${part}`),
  ];
  for (const path of paths) {
    await goWithin(page, path);
    await expect(page.locator('h1').first(), path).toBeVisible();
    await settled(page);
  }
  // Loaded anew as well: what was shown once may not be what is read again.
  await page.goto('/shelf');
  await expect(page.locator('ls-strip').first()).toBeVisible();
}

for (const [name, part] of FILES)
  test(`every place shows what a file holds that is accepted: ${name}`, async ({ page, guard }) => {
    const file = { format: 'loop-shelf', version: 1, phrases: [], attempts: [], drills: [], ...part };
    await page.goto('/kit?part=data');
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(file)) });
    await page.getByRole('button', { name: 'Put it on the shelf' }).click();
    await expect(page.getByText('from the file are on the shelf')).toBeVisible();
    await written(page);
    await walk(
      page,
      (file.phrases as { id: string }[]).map((p) => p.id),
    );
    expect(guard.errors).toEqual([]);
    // What was read is written again, and read again.
    await page.goto('/kit?part=data');
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Export the shelf' }).click();
    const path = await (await saved).path();
    await page.locator('input[type=file]').setInputFiles(path);
    await expect(page.getByText('The file can be read.')).toBeVisible();
    await expect(page.getByText('everything is already here')).toBeVisible();
  });
