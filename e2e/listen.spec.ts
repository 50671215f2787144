import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, openDemo, test } from './fixture';

// What is tried here is the browser's own audio.
test.use({ audio: 'browser' });

const WAVES = 'ls-wave';

/** Drags over a part of the lower wave, as shares of its width. */
async function dragOver(page: Page, from: number, to: number): Promise<void> {
  const box = await page.locator(WAVES).nth(1).boundingBox();
  if (!box) throw new Error('no wave');
  const y = box.y + box.height / 2;
  await page.mouse.move(box.x + box.width * from, y);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * ((from + to) / 2), y);
  await page.mouse.move(box.x + box.width * to, y);
  await page.mouse.up();
}

test('from a recording to a phrase on the Bench: marked, slowed, named, held against the record', async ({ page }) => {
  await openDemo(page, '/shelf');
  await page.keyboard.press('2');
  await page.getByRole('button', { name: 'a groove' }).click();
  await expect(page.locator(WAVES)).toHaveCount(2);
  await expect(page.getByText('strokes found')).toBeVisible();
  await expect(page.locator('.tempo')).toHaveText(/^8[78]\.\d$/);
  await dragOver(page, 0.045, 0.44);
  await expect(page.locator('.beats ls-ribbon svg').first()).toBeVisible();
  await expect(page.locator('.answers .way').first()).toContainText('16ths');
  await expect(page.locator('.school').first()).toBeVisible();
  // By ear: slower, round one bar, from beat to beat.
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.getByRole('button', { name: '50%' }).click();
  await expect(page.getByText('preparing')).toHaveCount(0);
  await expect(page.locator('.head').first()).toBeAttached();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('bar 1, beat 2')).toBeVisible();
  // A letter says what it is, and is one undo away.
  const chosen = page.locator('.stroke.on');
  await page.keyboard.press('k');
  await expect(chosen).toContainText('kick');
  await expect(chosen).toContainText('as you said');
  await page.keyboard.press('Control+z');
  await expect(chosen).not.toContainText('as you said');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`)).toEqual([]);
  await page.getByRole('button', { name: 'in turn' }).click();
  await expect(page.getByText(/strokes? of the recording match/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Menders, heard');
  await page.getByRole('textbox', { name: 'Where it was heard' }).fill('the band tape, second night');
  // What was worked out so far is there after a reload.
  await expect(async () => {
    const kept = await page.evaluate(
      () =>
        new Promise<string>((done) => {
          const open = indexedDB.open('loop-shelf-demo');
          open.onsuccess = () => {
            const all = open.result.transaction('listening').objectStore('listening').getAll();
            all.onsuccess = () => {
              done(JSON.stringify(all.result));
              open.result.close();
            };
          };
        }),
    );
    expect(kept).toContain('second night');
  }).toPass();
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Where it was heard' })).toHaveValue('the band tape, second night');
  await expect(page.locator('.beats ls-ribbon svg').first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Menders, heard');
  await page.getByRole('button', { name: 'Open on the Bench', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Menders, heard');
  const source = page.locator('article.source');
  await expect(source).toContainText('Heard: the band tape, second night');
  // The bars of the record are with it: heard, let go, kept again.
  await source.getByRole('button', { name: 'Hear the recording' }).click();
  await source.getByRole('button', { name: 'Stop the recording' }).click();
  await source.getByRole('button', { name: 'Delete the recording' }).click();
  await expect(source.getByRole('button', { name: 'Hear the recording' })).toHaveCount(0);
  await page.getByRole('alert').last().getByRole('button', { name: 'Undo' }).click();
  await expect(source.getByRole('button', { name: 'Hear the recording' })).toBeVisible();
});

test('what is no recording is told in words, and what was worked on stays', async ({ page }) => {
  await openDemo(page, '/listen');
  const pick = (name: string, buffer: Buffer, mimeType = ''): Promise<void> =>
    page.getByLabel('A recording', { exact: true }).setInputFiles({ name, mimeType, buffer });
  await pick('notes.txt', Buffer.from('not a sound'));
  await expect(page.getByRole('alert')).toContainText('no sound that can be read');
  await pick('nothing.wav', Buffer.alloc(0));
  await expect(page.getByRole('alert')).toContainText('empty');
  await page.getByRole('button', { name: 'a lick that repeats' }).click();
  await expect(page.getByText('strokes found')).toBeVisible();
  await pick('film.mp4', Buffer.from('....ftypisom and then nothing that is sound'), 'video/mp4');
  await expect(page.getByRole('alert')).toContainText('Your work is unchanged.');
  await expect(page.locator(WAVES)).toHaveCount(2);
  // A second of eight bits, one channel: it is read; there is nothing to hear in it.
  const silence = Buffer.alloc(44 + 8000, 128);
  silence.write('RIFF', 0);
  silence.writeUInt32LE(36 + 8000, 4);
  silence.write('WAVEfmt ', 8);
  silence.writeUInt32LE(16, 16);
  silence.writeUInt16LE(1, 20);
  silence.writeUInt16LE(1, 22);
  silence.writeUInt32LE(8000, 24);
  silence.writeUInt32LE(8000, 28);
  silence.writeUInt16LE(1, 32);
  silence.writeUInt16LE(8, 34);
  silence.write('data', 36);
  silence.writeUInt32LE(8000, 40);
  await pick('silence.wav', silence);
  await expect(page.getByText('No beat found.')).toBeVisible();
  // The one before is put aside, and one press away.
  await page.getByRole('alert').last().getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.listen .name')).toContainText('Harbour Master');
  await expect(page.getByText('strokes found')).toBeVisible();
});

interface Started {
  readonly when: number;
  readonly from: number;
  readonly long: number;
  readonly whole: number;
}

test('the record goes round beneath the drill, at another tempo, beat by beat', async ({ page }) => {
  await page.addInitScript(() => {
    const log: Started[] = [];
    Object.assign(window, { started: log });
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (when = 0, from = 0, long?: number) {
      if (long !== undefined) log.push({ when, from, long, whole: this.buffer?.duration ?? 0 });
      return start.call(this, when, from, long);
    };
  });
  await openDemo(page, '/listen');
  await page.getByRole('button', { name: 'a groove' }).click();
  await expect(page.locator('.tempo')).toHaveText(/^8[78]\.\d$/);
  await dragOver(page, 0.045, 0.44);
  await expect(page.locator('.school').first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Menders, heard');
  await page.getByRole('button', { name: 'Open on the Bench', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Menders, heard');
  await expect(page.locator('article.source').getByRole('button', { name: 'Hear the recording' })).toBeVisible();
  await page.getByRole('button', { name: /^Drill it/ }).click();
  const stages = page.getByRole('list', { name: 'Stages' }).getByRole('listitem');
  await expect(stages.filter({ hasText: 'With the recording' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  await page.getByRole('button', { name: 'Add a stage' }).click();
  await page.getByRole('menuitem', { name: 'With the recording' }).click();
  await page.getByRole('button', { name: 'Remove: The whole phrase' }).click();
  await page.getByLabel('Start tempo').fill('60');
  await page.getByLabel('Start tempo').press('Enter');
  await page.getByRole('button', { name: 'Start Space' }).click();
  await expect(page.getByText('The recording plays along')).toBeVisible();
  const started = (): Promise<Started[]> =>
    page.evaluate(() => [...(window as unknown as { started: Started[] }).started]);
  await expect(async () => expect((await started()).length).toBeGreaterThan(5)).toPass();
  const all = await started();
  const [first] = all;
  // Whole bars of four seconds, and a little round them.
  const bars = ((first?.whole ?? 0) - 0.07) / 4;
  expect(bars).toBeCloseTo(Math.round(bars), 2);
  expect(Math.round(bars)).toBeGreaterThanOrEqual(1);
  all.slice(1).forEach((s, i) => {
    expect(s.when - (all[i]?.when ?? 0)).toBeCloseTo(1, 3);
    expect(s.from).toBeCloseTo(((i + 1) % (4 * Math.round(bars))) + 0.012, 3);
    expect(s.long).toBeCloseTo(1.003, 3);
  });
});

test('what came here: bars of a recording are read against the shelf, and kept as a sitting', async ({ page }) => {
  await openDemo(page, '/listen');
  await page.getByRole('button', { name: 'a groove' }).click();
  await expect(page.getByText('strokes found')).toBeVisible();
  await dragOver(page, 0.045, 0.44);
  await expect(page.locator('.school').first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Menders, heard');
  await page.getByRole('button', { name: 'Open on the Bench' }).click();
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  await page.goto('/listen');
  await expect(page.locator('.school').first()).toBeVisible();
  await page.getByRole('button', { name: 'What came here?' }).click();
  await expect(page.locator('#sitting-title')).toHaveText(/^From a recording/);
  await expect(page.locator('.told')).toContainText('Menders, heard');
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.locator('.to-sitting').first()).toContainText('record');
});
