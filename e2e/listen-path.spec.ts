import type { Page } from '@playwright/test';
import { playedOut, randomKit, randomLick, recorded, KIND_OF } from '../core/testing/recordings';
import { build, type Recipe } from '../core/recipe';
import { expect, test } from './fixture';
import { wavFile } from './wav';

const RATE = 44_100;
/** A lick of two bars of 16ths at 120, played twice by nobody we know, with noise and a little room. */
const LICK = randomLick(21, 4, 4, 2);
const OUT = playedOut({ ...LICK, slots: [...LICK.slots, ...LICK.slots] }, { bpm: 120, begins: 0.1, seed: 4 });
const TRUTH = LICK.slots.flatMap((hits, slot) => hits.map((h) => `${slot} ${KIND_OF[h.sound]}`)).sort();

function recording(): Buffer {
  const seconds = OUT.ends + 0.6;
  const kit = randomKit(77, RATE);
  const samples = recorded({ rate: RATE, seconds, kit, blows: OUT.blows, seed: 5, noise: -50, room: 0.3 });
  return wavFile({ rate: RATE, channels: 1, bits: 16, seconds }, (t) => 0.6 * (samples[Math.round(t * RATE)] ?? 0));
}

/** What stands on the Bench, as kept: slots and what is struck on them. */
async function kept(page: Page): Promise<readonly string[]> {
  const recipe = await page.evaluate(
    (id) =>
      new Promise<unknown>((done) => {
        const open = indexedDB.open('loop-shelf');
        open.onsuccess = () => {
          const row = open.result.transaction('phrases').objectStore('phrases').get(id);
          row.onsuccess = () => {
            done((row.result as { recipe: unknown }).recipe);
            open.result.close();
          };
        };
      }),
    new URL(page.url()).pathname.split('/').at(-1) ?? '',
  );
  const { pattern } = build(recipe as Recipe);
  return pattern.strokes.map((s) => `${(pattern.start + s.at) / 1260} ${kindOf(s.voice)}`).sort();
}

/** The slot that "bar 2, 3a" means, in 16ths. */
function slotOf(words: string): number {
  const [, bar, beat, part] = /bar (\d+), (\d+)([e&a]?)/.exec(words) ?? [];
  return (Number(bar) - 1) * 16 + (Number(beat) - 1) * 4 + ['', 'e', '&', 'a'].indexOf(part ?? '');
}

const kindOf = (words: string): string => (/kick/.test(words) ? 'kick' : /snare|tom/.test(words) ? 'drum' : 'cymbal');

/** Says of each stroke what it is where it was taken for something else, by keys; gives back how often that was. */
async function correct(page: Page): Promise<number> {
  const chosen = page.locator('.stroke.on');
  let said = 0;
  for (let last = -1; ;) {
    await page.keyboard.press('ArrowDown');
    await expect(chosen).toHaveCount(1);
    const words = await chosen.innerText();
    const slot = slotOf(words);
    if (slot <= last) return said;
    last = slot;
    const truth = TRUTH.find((line) => line.startsWith(`${slot} `))?.split(' ')[1];
    if (truth === kindOf(words)) continue;
    said++;
    await page.keyboard.press(truth === undefined ? '-' : truth.slice(0, 1));
    if (truth === undefined) last--;
    else await expect(chosen).toContainText('as you said');
  }
}

test('by keys alone a recording becomes the phrase that was played, after one correction in ten strokes', async ({
  page,
}) => {
  const buffer = recording();
  // The browser takes a moment until it hands choosers to the test: it is asked before the page is there.
  page.on('filechooser', (c) => void c.setFiles({ name: 'kitchen tape.wav', mimeType: 'audio/wav', buffer }));
  await page.goto('/listen');
  await expect(page.getByText('Drop a recording here, or choose one')).toBeVisible();
  await page.keyboard.press('i');
  await expect(page.getByText(/\d+ strokes found/)).toBeVisible();
  await expect(page.locator('.tempo')).toHaveText(/^(119|120)\.\d$/);
  await page.keyboard.press('b');
  // Whichever beat was taken for the first: this is the 1.
  await page.keyboard.press('o');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  // The end is marked by what sounds, not by a clock of the test's: a little before the line behind the second bar.
  await page.waitForFunction(
    (share) => {
      const wave = document.querySelector('ls-wave');
      const [head, svg] = [wave?.querySelector('.head'), wave?.querySelector('svg')];
      return head && svg && Number(head.getAttribute('x1')) >= share * svg.clientWidth;
    },
    3.7 / (OUT.ends + 0.6),
    { polling: 20 },
  );
  await page.keyboard.press('e');
  await page.keyboard.press('Space');
  await expect(page.locator('.beats ls-ribbon svg').first()).toBeVisible();
  await expect(page.getByText('of 8', { exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What was found' })).toHaveAttribute('aria-busy', 'false');
  const said = await correct(page);
  expect(said).toBeLessThanOrEqual(TRUTH.length / 10);
  await page.keyboard.press('Shift+Enter');
  await expect(page).toHaveURL(/\/bench\/./);
  expect(await kept(page)).toEqual(TRUTH);
});

test('by pointer alone: dropped, dragged over, named by buttons, held against the record, taken along', async ({
  page,
}) => {
  const buffer = recording();
  await page.goto('/listen');
  const wave = page.locator('ls-wave');
  const handed = await page.evaluateHandle((letters) => {
    const bytes = Uint8Array.from(atob(letters), (c) => c.charCodeAt(0));
    const data = new DataTransfer();
    data.items.add(new File([bytes], 'kitchen tape.wav', { type: 'audio/wav' }));
    return data;
  }, buffer.toString('base64'));
  await page.locator('.listen').dispatchEvent('drop', { dataTransfer: handed });
  await expect(page.getByText(/\d+ strokes found/)).toBeVisible();
  // Over the first two bars of four and a bit.
  const box = await wave.nth(1).boundingBox();
  if (!box) throw new Error('no wave');
  const x = (seconds: number): number => box.x + (box.width * seconds) / (OUT.ends + 0.6);
  await page.mouse.move(x(0.06), box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(x(2), box.y + box.height / 2);
  await page.mouse.move(x(4.05), box.y + box.height / 2);
  await page.mouse.up();
  await expect(page.locator('.beats ls-ribbon svg').first()).toBeVisible();
  if ((await page.getByText('of 8', { exact: true }).count()) === 0) {
    // Another beat was taken for the first 1: it is where the lick begins.
    await page.getByRole('button', { name: 'The 1 is here' }).click();
    await expect(page.getByText('of 8', { exact: true })).toBeVisible();
  }
  const chosen = page.locator('.stroke.on');
  await page.locator('.stroke').first().click();
  await expect(chosen).toHaveCount(1);
  const kind = KIND_OF[LICK.slots[0]?.[0]?.sound ?? 'kick'] ?? 'kick';
  await page
    .getByRole('button', { name: new RegExp(`^${kind}`) })
    .first()
    .click();
  await expect(chosen).toContainText('as you said');
  await page.getByRole('button', { name: '50%' }).click();
  await page.getByRole('button', { name: 'together' }).click();
  await expect(page.getByText(/strokes? of the recording match/)).toBeVisible();
  await page.getByRole('button', { name: 'together' }).click();
  await page.getByRole('button', { name: 'Open on the Bench', exact: true }).click();
  await expect(page).toHaveURL(/\/bench\/./);
  const own = new Set(await kept(page));
  const right = TRUTH.filter((line) => own.has(line)).length;
  expect(right / TRUTH.length).toBeGreaterThan(0.8);
});
