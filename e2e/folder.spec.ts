import type { BrowserContext, Page } from '@playwright/test';
import { writeShelf } from '../core/formats/shelf-file';
import { turn } from './clock';
import { expect, keepAs, test, typeSticking, written } from './fixture';

/**
 * A stand-in for the folder a player chooses: one of the origin's private file system behind the same interface. What
 * is planted in the page's storage makes it fail as a real one does.
 */
async function standInFolder(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    // What comes before the page is none of ours, and has no folders.
    if (!('FileSystemDirectoryHandle' in globalThis)) return;
    const fails = (): string => sessionStorage.getItem('folder-fails') ?? '';
    const named = (name: string): DOMException => new DOMException('stand-in', name);
    Object.assign(globalThis, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour', { create: true }),
    });
    const dir = FileSystemDirectoryHandle.prototype as FileSystemDirectoryHandle & {
      queryPermission: () => Promise<PermissionState>;
      requestPermission: () => Promise<PermissionState>;
      entries: () => AsyncIterableIterator<[string, FileSystemHandle]>;
    };
    dir.queryPermission = () => Promise.resolve(fails() === 'permission' ? 'prompt' : 'granted');
    dir.requestPermission = () => {
      if (fails() === 'permission') sessionStorage.removeItem('folder-fails');
      return Promise.resolve('granted');
    };
    const entries = dir.entries;
    dir.entries = function () {
      if (fails() === 'gone') throw named('NotFoundError');
      return entries.call(this);
    };
    const file = FileSystemFileHandle.prototype;
    const writable = file.createWritable;
    file.createWritable = function (how) {
      if (fails() === 'full') return Promise.reject(named('QuotaExceededError'));
      return writable.call(this, how);
    };
  });
}

/** What stands in the folder: names and texts. */
function inFolder(page: Page): Promise<Record<string, string>> {
  return page.evaluate(async () => {
    const dir = await (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour', { create: true });
    const all: Record<string, string> = {};
    for await (const [name, handle] of (
      dir as unknown as { entries(): AsyncIterableIterator<[string, FileSystemFileHandle]> }
    ).entries())
      // One that is being replaced cannot be read: it is asked for again.
      all[name] = await handle
        .getFile()
        .then((f) => f.text())
        .catch(() => '');
    return all;
  });
}

function putInFolder(page: Page, files: Readonly<Record<string, string>>): Promise<void> {
  return page.evaluate(async (given) => {
    const dir = await (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour', { create: true });
    for (const [name, text] of Object.entries(given)) {
      const stream = await (await dir.getFileHandle(name, { create: true })).createWritable();
      await stream.write(text);
      await stream.close();
    }
  }, files);
}

const fails = (page: Page, how: string): Promise<void> =>
  page.evaluate((h) => sessionStorage.setItem('folder-fails', h), how);

/** The phrases of the shelf file, by name; only that file is read, as hundreds may stand beside it. */
const names = async (page: Page): Promise<readonly string[]> => {
  const text = await page.evaluate(async () => {
    const dir = await (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour', { create: true });
    const file = await dir
      .getFileHandle('loop-shelf.json')
      .then((handle) => handle.getFile())
      .then((f) => f.text())
      .catch(() => '');
    return file || '{}';
  });
  const { phrases = [] } = JSON.parse(text) as { phrases?: { name: string }[] };
  return phrases.map((p) => p.name).sort();
};

const kit = (page: Page) => page.locator('ls-own-folder');

async function choose(page: Page): Promise<void> {
  await page.goto('/kit?part=data');
  await kit(page).getByRole('button', { name: 'Choose a folder' }).click();
}

const phrase = (id: string, name: string) => ({
  id,
  name,
  family: 'fill' as const,
  recipe: { source: { kind: 'typed' as const, text: 'R l l K', meter: '4/4', grid: 1260 }, moves: [] },
  tempo: 90,
  goal: 110,
  note: '',
  created: 1,
  changed: 1,
});

test.beforeEach(async ({ context }) => standInFolder(context));

test('a folder follows the shelf within a minute and on leaving, and another device’s file is merged on focus', async ({
  page,
}) => {
  await page.clock.install();
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await choose(page);
  await expect(kit(page)).toContainText('There is no shelf in it yet.');
  await kit(page).getByRole('button', { name: 'Use this folder' }).click();
  await expect.poll(() => names(page)).toEqual(['Rope']);
  await expect(kit(page)).toContainText('follows the shelf');
  // A change is written by itself.
  await typeSticking(page, 'L r r K');
  await keepAs(page, 'Anchor');
  await turn(page, 40);
  await expect.poll(() => names(page)).toEqual(['Anchor', 'Rope']);
  // Another device was here: what it wrote is merged when the page is looked at again.
  const text = (await inFolder(page))['loop-shelf.json'] ?? '';
  const shelf = JSON.parse(text) as { phrases: object[] };
  await putInFolder(page, {
    'loop-shelf.json': writeShelf({
      ...(shelf as object),
      phrases: [...shelf.phrases, phrase('far', 'From afar')] as never,
    }),
    'loop-shelf (1).json': writeShelf({ phrases: [phrase('copy', 'In the copy')] }),
    'taxes.json': '{"mine":true}',
  });
  await page.evaluate(() => dispatchEvent(new Event('focus')));
  await expect.poll(() => names(page)).toEqual(['Anchor', 'From afar', 'In the copy', 'Rope']);
  expect((await inFolder(page))['taxes.json']).toBe('{"mine":true}');
  await page.goto('/shelf');
  await expect(page.locator('ls-strip .title')).toHaveCount(4);
  await page.goto('/kit?part=data');
  await expect(kit(page)).toContainText('follows the shelf');
});

test('the first writing of a day keeps the day before, and seven of them stay', async ({ page }) => {
  await page.clock.install({ time: new Date('2026-11-01T10:00:00') });
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await choose(page);
  await kit(page).getByRole('button', { name: 'Use this folder' }).click();
  await expect.poll(() => names(page)).toEqual(['Rope']);
  const text = async (): Promise<string> => (await inFolder(page))['loop-shelf.json'] ?? '';
  for (let day = 2; day <= 10; day++) {
    const before = await text();
    await page.clock.setSystemTime(new Date(`2026-11-${String(day).padStart(2, '0')}T10:00:00`));
    await page.getByRole('button', { name: day % 2 === 0 ? '1 & a' : '1 trip let', exact: true }).click();
    await written(page);
    await kit(page).getByRole('button', { name: 'Write it now' }).click();
    await expect(async () => {
      const now = await text();
      expect(now).not.toBe(before);
      expect(now).toContain('checksum');
    }).toPass();
    await expect(kit(page)).not.toContainText('Writing');
  }
  const days = Object.keys(await inFolder(page)).filter((n) => n.includes(' day '));
  expect(days.sort()).toEqual([3, 4, 5, 6, 7, 8, 9].map((d) => `loop-shelf day 2026-11-0${d}.json`));
});

test('lost permission, a full disk and a folder that went are said, stand until they are over, and lose nothing', async ({
  page,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await choose(page);
  await kit(page).getByRole('button', { name: 'Use this folder' }).click();
  await expect.poll(() => names(page)).toEqual(['Rope']);
  const before = (await inFolder(page))['loop-shelf.json'];
  for (const [how, words] of [
    ['full', 'The disk of the folder “Harbour” is full. Your shelf is safe in this browser.'],
    ['gone', 'The folder “Harbour” is gone. Your shelf is safe in this browser.'],
    ['permission', 'The folder “Harbour” is not allowed any more. Your shelf is safe in this browser.'],
  ] as const) {
    await fails(page, how);
    await typeSticking(page, `R l l K ${how === 'full' ? 'R' : how === 'gone' ? 'R R' : 'R R R'}`);
    await keepAs(page, how);
    await page.evaluate(() => dispatchEvent(new Event('focus')));
    await page.goto('/kit?part=data');
    if (how !== 'permission') await kit(page).getByRole('button', { name: 'Write it now' }).click();
    await expect(page.locator('.trouble')).toContainText(words);
    if (how === 'permission') break;
    // Writing that was asked for twice fails twice, before it may succeed.
    await expect(kit(page)).not.toContainText('Writing');
    await page.evaluate(() => sessionStorage.removeItem('folder-fails'));
    expect((await inFolder(page))['loop-shelf.json']).toBe(before);
    await kit(page).getByRole('button', { name: 'Write it now' }).click();
    await expect(page.locator('.trouble')).toHaveCount(0);
    await expect.poll(async () => (await names(page)).includes(how)).toBe(true);
    await putInFolder(page, { 'loop-shelf.json': before ?? '' });
  }
  await page.locator('.trouble').getByRole('button', { name: 'Try again' }).click();
  await expect.poll(() => names(page)).toEqual(['Rope', 'full', 'gone', 'permission']);
  await expect(page.locator('.trouble')).toHaveCount(0);
});

test('a stranger’s folder is asked about first; a newer, an older and a broken file are said; nothing is overwritten', async ({
  page,
}) => {
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  const many = Object.fromEntries(Array.from({ length: 500 }, (_, i) => [`letter ${i}.json`, '{}']));
  const theirs = writeShelf({ phrases: [phrase('s', 'Of a stranger')] });
  await putInFolder(page, { ...many, 'loop-shelf.json': theirs });
  await choose(page);
  await expect(kit(page)).toContainText('There is a shelf in it. Is it yours?');
  await expect(kit(page)).toContainText('1 new phrase');
  await kit(page).getByRole('button', { name: 'Not now' }).click();
  expect((await inFolder(page))['loop-shelf.json']).toBe(theirs);
  for (const [text, words] of [
    [theirs.replace(/"version":\d+/, '"version":99'), 'saved by a newer Loop Shelf'],
    [theirs.slice(0, 200), 'cut off'],
  ] as const) {
    await putInFolder(page, { 'loop-shelf.json': text });
    await choose(page);
    await expect(kit(page)).toContainText(words);
    await expect(kit(page)).toContainText('Nothing was written.');
    expect((await inFolder(page))['loop-shelf.json']).toBe(text);
  }
  // One of an older Loop Shelf is read and merged.
  const older = JSON.stringify({ format: 'loop-shelf', version: 2, phrases: [], attempts: [], drills: [] });
  await putInFolder(page, { 'loop-shelf.json': older });
  await choose(page);
  await kit(page).getByRole('button', { name: 'Merge and use it' }).click();
  await expect.poll(() => names(page)).toEqual(['Rope']);
  expect(Object.keys(await inFolder(page)).filter((n) => n.startsWith('letter'))).toHaveLength(500);
  await written(page);
});

test('where no folder can be chosen, an export that is two weeks old is one quiet line on the shelf', async ({
  page,
}) => {
  await page.clock.install({ time: new Date('2026-11-01T10:00:00') });
  await page.addInitScript(() => Reflect.deleteProperty(globalThis, 'showDirectoryPicker'));
  await typeSticking(page, 'R l l K');
  await keepAs(page, 'Rope');
  await page.goto('/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
  await expect(page.locator('ls-export-line')).toHaveText('');
  await page.clock.setSystemTime(new Date('2026-11-16T11:00:00'));
  await page.reload();
  await expect(page.locator('ls-export-line')).toContainText('Never exported.');
  await page.locator('ls-export-line').getByRole('link', { name: 'Export it' }).click();
  await expect(kit(page)).toContainText('This browser cannot write into a folder.');
  const download = page.waitForEvent('download');
  await page
    .getByRole('button', { name: /^Export/ })
    .first()
    .click();
  await download;
  await expect(page.locator('ls-my-data')).toContainText('Last export: 16 Nov 2026');
  await page.goto('/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
  await expect(page.locator('ls-export-line')).toHaveText('');
});
