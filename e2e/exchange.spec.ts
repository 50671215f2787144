import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Download, Page } from '@playwright/test';
import { expect, openDemo, test } from './fixture';
import { pagesOf } from './pdf';

/** A file that another program wrote: seven bars of a groove, a fill, bars of 7/8; as played, at 480 to a quarter. */
const HARBOUR = 'e2e/files/harbour.mid';

async function bytesOf(file: Download): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

/** Axe finds nothing in a part of the page. */
async function clean(page: Page, part: string): Promise<void> {
  const found = await new AxeBuilder({ page }).include(part).analyze();
  expect(found.violations.map((v) => v.id)).toEqual([]);
}

async function saved(page: Page, button: string): Promise<{ name: string; bytes: Buffer }> {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button, exact: true }).click(),
  ]);
  return { name: file.suggestedFilename(), bytes: await bytesOf(file) };
}

test('a MIDI file is dropped, its bars are shown once each, two are taken, and one phrase of them is drilled', async ({
  page,
}) => {
  await openDemo(page, '/shelf');
  await page.locator('ls-strip').first().waitFor();
  // Dropped anywhere on the Shelf.
  const data = await page.evaluateHandle(
    (raw) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([Uint8Array.from(raw)], 'harbour.mid', { type: 'audio/midi' }));
      return transfer;
    },
    [...readFileSync(HARBOUR)],
  );
  await page.dispatchEvent('.shelf', 'drop', { dataTransfer: data });
  const dialog = page.getByRole('dialog', { name: 'Bring in' });
  await expect(dialog.getByText('11 bars, 5 of them different')).toBeVisible();
  await expect(dialog.getByRole('option')).toHaveCount(5);
  await expect(dialog.getByRole('option').first()).toContainText('again in 3, 5, 7');
  // A key that no voice has is told, and can be given one.
  await dialog.getByText(/^\d+ keys, 1 without a piece yet/).click();
  await expect(dialog.getByText('key 54')).toBeVisible();
  await dialog.getByRole('option', { name: /^Bar 8/ }).click();
  await expect(dialog.getByRole('radio').first()).toBeChecked();
  await expect(dialog.getByText(/16ths/).first()).toBeVisible();
  await dialog.getByRole('option', { name: /^Bar 9/ }).click();
  await dialog.getByLabel('How many bars').fill('2');
  await dialog.getByLabel('How many bars').press('Enter');
  await expect(dialog.getByLabel('Name')).toHaveValue('Harbour groove, bars 9–10');
  await clean(page, '.p-dialog');
  await dialog.getByRole('button', { name: 'Open on the Bench' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Harbour groove, bars 9–10');
  await expect(page.getByText('2 bars of 7/8').first()).toBeVisible();
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page.locator('ls-drill-setup')).toBeVisible();
});

test('a phrase goes out as MIDI, score and sound, and the files come back as the phrase they were', async ({
  page,
}) => {
  await openDemo(page, '/bench/salt-1');
  await page.keyboard.press('Shift+A');
  const along = page.getByRole('dialog', { name: 'Share or export' });
  await expect(along.getByLabel('The link as a code to scan')).toBeVisible();
  await clean(page, '.p-dialog');
  const files = [await saved(page, 'MIDI'), await saved(page, 'Score'), await saved(page, 'Score, zipped')];
  expect(files.map((f) => f.name)).toEqual(['Glass over five.mid', 'Glass over five.musicxml', 'Glass over five.mxl']);
  await along.getByLabel('Loops', { exact: true }).fill('2');
  await along.getByLabel('Loops', { exact: true }).press('Enter');
  const wav = await saved(page, 'Export the sound');
  // A bar of 7/8 counted in, and twice two bars, at 92 bpm; what rings on after it makes it longer.
  const seconds = ((1 + 4) * 3.5 * 60) / 92;
  expect([wav.name, wav.bytes.subarray(0, 4).toString(), wav.bytes.readUInt32LE(24)]).toEqual([
    'Glass over five 92.wav',
    'RIFF',
    44_100,
  ]);
  expect(wav.bytes.readUInt32LE(40) / 88_200).toBeGreaterThan(seconds);
  expect(wav.bytes.length).toBe(wav.bytes.readUInt32LE(40) + 44);
  // A practice track takes a moment: it can be stopped.
  await along.getByRole('button', { name: 'practice track' }).click();
  await expect(along.getByText(/rungs in all · \d+ min/)).toBeVisible();
  await page.keyboard.press('Escape');
  // A dialog that is still closing keeps the letters to itself.
  await expect(along).toBeHidden();
  for (const { name, bytes } of files) {
    const dialog = page.getByRole('dialog', { name: 'Bring in' });
    await expect(async () => {
      await page.keyboard.press('i');
      await expect(dialog).toBeVisible({ timeout: 3000 });
    }).toPass();
    await dialog.locator('input[type=file]').setInputFiles({ name, mimeType: '', buffer: bytes });
    await expect(dialog.getByText('This is a phrase of Loop Shelf, “Glass over five”')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(dialog).toBeHidden();
  }
  // What is no such file is told in words, and nothing is lost.
  await page.keyboard.press('i');
  const dialog = page.getByRole('dialog', { name: 'Bring in' });
  const half = files[0]!.bytes.subarray(0, 60);
  await dialog.locator('input[type=file]').setInputFiles({ name: 'half.mid', mimeType: '', buffer: half });
  await expect(dialog.getByRole('alert')).toContainText('cut off');
});

test('a drawing that is saved looks the same elsewhere: the fonts its letters need are in it', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.keyboard.press('p');
  await expect(page.locator('.sheet-dialog ls-staff svg')).toBeVisible();
  const { bytes } = await saved(page, 'Save the staff as SVG');
  const text = bytes.toString();
  expect([text.includes('font-family:"Bravura"'), /font\/woff2;base64,d09GM/.test(text)]).toEqual([true, true]);
  // Drawn alone, without the application, its notes are as wide as in it.
  const there = await page
    .locator('.sheet-dialog ls-staff svg text')
    .first()
    .evaluate((t) => t.getBoundingClientRect().width);
  const alone = await page.context().newPage();
  await alone.setContent(`<body style="margin:0">${text}</body>`);
  await alone.evaluate(() => document.fonts.ready);
  const here = await alone
    .locator('svg text')
    .first()
    .evaluate((t) => t.getBoundingClientRect().width);
  expect(Math.abs(here / there - 1)).toBeLessThan(0.05);
});

test('a link opens for a visitor: seen, heard, and kept only when it is taken', async ({ page, browser }) => {
  await openDemo(page, '/bench/salt-1');
  await page.keyboard.press('Shift+A');
  await expect(page.getByLabel('The link', { exact: true })).toHaveValue(/\/visit#p=/);
  const link = await page.getByLabel('The link', { exact: true }).inputValue();
  const other = await browser.newContext();
  const visitor = await other.newPage();
  await visitor.goto(link);
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('Glass over five');
  await expect(visitor.locator('ls-staff svg')).toBeVisible();
  await clean(visitor, '.visit');
  await visitor.getByRole('button', { name: 'Hear', exact: true }).click();
  await expect(visitor.getByRole('button', { name: 'Stop' })).toBeVisible();
  await visitor.getByRole('link', { name: 'Shelf' }).click();
  await expect(visitor.getByText('Nothing here yet')).toBeVisible();
  await visitor.goto(link);
  await visitor.getByRole('button', { name: 'Keep it' }).click();
  await expect(visitor.locator('ls-strip')).toContainText('Glass over five');
  await visitor.goto(link.slice(0, -40));
  await expect(visitor.getByText('This link cannot be opened')).toBeVisible();
  await other.close();
});

test('step by step, the book and the week go on paper in whole pages', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.keyboard.press('p');
  await page.getByRole('button', { name: 'step by step' }).click();
  await expect(page.locator('.sheet .row')).toHaveCount(6);
  const lesson = pagesOf(await page.pdf({ format: 'A4' }));
  expect(lesson.length).toBeGreaterThanOrEqual(2);
  expect(lesson.length).toBeLessThanOrEqual(3);
  for (const one of lesson) expect(one.ink.right).toBeLessThan(595 - 10);
  await page.keyboard.press('Escape');
  await page.goto('/shelf');
  await page.locator('ls-strip').first().waitFor();
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Print', exact: true }).click();
  await expect(page.locator('.sheet .phrase')).toHaveCount(40);
  await expect(page.locator('.sheet .contents li')).toHaveCount(40);
  const book = pagesOf(await page.pdf({ format: 'Letter' }));
  // Contents, then two or three phrases to a page.
  expect(book.length).toBeGreaterThan(10);
  expect(book.length).toBeLessThan(24);
  for (const one of book) expect(one.ink.bottom).toBeLessThan(792 - 10);
  await page.keyboard.press('Escape');
  await page.goto('/today');
  await page.getByRole('button', { name: 'The week on paper' }).click();
  await expect(page.locator('.sheet h2')).toHaveCount(7);
  const week = pagesOf(await page.pdf({ format: 'A4' }));
  expect(week.length).toBeGreaterThanOrEqual(2);
  expect(week.length).toBeLessThanOrEqual(5);
});
