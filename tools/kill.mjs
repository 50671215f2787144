// Kills the browser in the middle of what a player does, again and again, and looks each time whether anything is lost:
// what was kept and said so is there, what was played is logged once, and what lay on the Bench lies there again. Needs
// a build. `node tools/kill.mjs 10` does it ten times; 100 are usual. The last line says what came out.
import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureChromium, startServer } from './shared.mjs';

const kills = Number(process.argv[2] ?? 100);
const port = 4395;
const base = `http://127.0.0.1:${port}`;
const server = await startServer(port);
const folder = mkdtempSync(join(tmpdir(), 'loop-shelf-kill-'));
const options = {
  executablePath: ensureChromium(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--no-first-run',
    '--disable-sync',
    '--autoplay-policy=no-user-gesture-required',
  ],
  viewport: { width: 1280, height: 800 },
  serviceWorkers: 'block',
};

/** The same seed kills at the same moments, as far as a machine is the same twice. */
let state = Number(process.env.KILL_SEED ?? 7);
const random = () => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 4294967296;
};

const lost = [];
/** Names that the page said were kept, and tries that it had logged before the kill began. */
const kept = new Set();
const given = new Set();
let tries = 0;

async function open() {
  const context = await chromium.launchPersistentContext(folder, options);
  // A folder of the origin's private files stands for the one that a player chooses.
  await context.addInitScript(() => {
    globalThis.showDirectoryPicker = async () =>
      (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour', { create: true });
  });
  const page = context.pages()[0] ?? (await context.newPage());
  return { context, page };
}

/** Everything that is stored, read without the application. */
const stored = (page) =>
  page.evaluate(
    () =>
      new Promise((done, fail) => {
        const open = indexedDB.open('loop-shelf');
        open.onerror = () => fail(new Error('the database does not open'));
        open.onsuccess = async () => {
          const db = open.result;
          const names = ['phrases', 'tries', 'drills', 'drafts', 'lessons', 'aside'].filter((n) =>
            db.objectStoreNames.contains(n),
          );
          if (names.length === 0) {
            db.close();
            return done({ phrases: [], tries: [], drills: [], drafts: [], lessons: [], aside: [] });
          }
          const trans = db.transaction(names);
          const all = await Promise.all(
            names.map(
              (n) => new Promise((ok) => (trans.objectStore(n).getAll().onsuccess = (e) => ok([n, e.target.result]))),
            ),
          );
          db.close();
          done(Object.fromEntries(all));
        };
      }),
  );

/** The shelf file in the folder; null where there is none. */
const inFolder = (page) =>
  page.evaluate(async () => {
    try {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('Harbour');
      return await (await (await folder.getFileHandle('loop-shelf.json')).getFile()).text();
    } catch {
      return null;
    }
  });

/** Kills the browser's process, and waits until it is gone. */
async function kill(context, page) {
  const session = await context.newCDPSession(page).catch(() => null);
  // Neither call comes back.
  void session?.send('Browser.crash').catch(() => undefined);
  await Promise.race([context.waitForEvent('close').catch(() => undefined), new Promise((r) => setTimeout(r, 3000))]);
  await context.close().catch(() => undefined);
}

/** What a player does until the browser dies: each a piece of work with what it has promised so far. */
const works = {
  async edit(page, n) {
    await page.goto(`${base}/bench?fresh=1`);
    await page.getByRole('textbox', { name: 'Sticking' }).fill('R l l K');
    await page.getByRole('button', { name: 'Put it on the Bench' }).click();
    for (let i = 0; i < 30; i++) await page.keyboard.press(i % 2 ? 'ArrowUp' : 'Shift+ArrowUp');
    return n;
  },
  async keep(page, n) {
    await works.edit(page, n);
    const name = `Kept ${n}`;
    await page.keyboard.press('k');
    const dialog = page.getByRole('dialog', { name: 'Keep it' });
    await dialog.getByLabel('Name').fill(name);
    await dialog.getByRole('button', { name: 'Keep it' }).click();
    await page.getByText(`“${name}” is on the shelf`).waitFor();
    kept.add(name);
  },
  async drill(page, n) {
    await works.keep(page, n);
    await page.keyboard.press('d');
    await page.getByRole('button', { name: /^Start/ }).click();
    await page.waitForFunction(() => document.querySelector('.loops') !== null);
    // A bar of count-in at the slowest; each try after it is judged as soon as it has begun.
    for (let i = 0; i < 20; i++) {
      await page.waitForTimeout(700);
      await page.keyboard.press(i % 3 ? 'Enter' : 'Space');
    }
  },
  async lesson(page, n) {
    await works.keep(page, n);
    const title = `Lesson ${n}`;
    await page.goto(`${base}/shelf`);
    await page.locator('ls-strip').first().waitFor();
    await page.keyboard.press('Control+a');
    await page.getByRole('button', { name: 'Put in a lesson' }).click();
    await page.getByRole('textbox', { name: /lesson/ }).fill(title);
    await page.getByRole('button', { name: 'Make the lesson' }).click();
    await page.locator('ls-give ol li').first().waitFor();
    given.add(title);
    for (let i = 0; i < 30; i++) {
      await page.getByRole('textbox', { name: 'Note on phrase 1' }).fill(`Note ${i}`);
      await page.getByRole('textbox', { name: 'Note on phrase 1' }).press('Tab');
    }
  },
  async folder(page, n) {
    await works.keep(page, n);
    await page.goto(`${base}/kit?part=data`);
    const own = page.locator('ls-own-folder');
    const chosen = own.getByRole('button', { name: 'Choose a folder' });
    await own.getByRole('button').first().waitFor();
    if (await chosen.isVisible()) {
      await chosen.click();
      await own.getByRole('button', { name: /^(Use this folder|Merge and use it)/ }).click();
    }
    for (let i = 0; i < 30; i++) {
      await page.getByRole('button', { name: i % 2 ? '1 & a' : '1 trip let', exact: true }).click();
      await own.getByRole('button', { name: 'Write it now' }).click();
    }
  },
};

/** How long each may go on before the browser dies, in milliseconds. */
const LONGEST = { edit: 3000, keep: 5000, drill: 14_000, lesson: 10_000, folder: 10_000 };

try {
  for (let n = 1; n <= kills; n++) {
    const kinds = Object.keys(works);
    const kind = kinds[n % kinds.length];
    const { context, page } = await open();
    await page.goto(`${base}/shelf`);
    const before = await stored(page);
    const after = 300 + random() * LONGEST[kind];
    const work = works[kind](page, n).catch(() => undefined);
    await Promise.race([work, new Promise((r) => setTimeout(r, after))]);
    await kill(context, page);
    await work;

    const again = await open();
    await again.page.goto(`${base}/shelf`);
    await again.page.locator('h1').waitFor();
    const now = await stored(again.page);
    const names = new Set(now.phrases.map((p) => p.name));
    for (const name of kept) if (!names.has(name)) lost.push(`kill ${n}, ${kind}: “${name}” was kept and is gone`);
    const titles = new Set(now.lessons.filter((l) => !l.dropped).map((l) => l.title));
    for (const title of given) if (!titles.has(title)) lost.push(`kill ${n}, ${kind}: the lesson “${title}” is gone`);
    const file = await inFolder(again.page);
    if (file !== null && !/"checksum":"\w+"\n\}\n$/.test(file))
      lost.push(`kill ${n}, ${kind}: half a file in the folder`);
    for (const p of before.phrases)
      if (!now.phrases.some((q) => q.id === p.id)) lost.push(`kill ${n}, ${kind}: ${p.name} is gone`);
    const ids = now.tries.flatMap((p) => p.tries.map((t) => t.id));
    if (new Set(ids).size !== ids.length) lost.push(`kill ${n}, ${kind}: a try is logged twice`);
    if (ids.length < tries) lost.push(`kill ${n}, ${kind}: ${tries - ids.length} tries are gone`);
    tries = ids.length;
    for (const d of now.drills)
      for (const t of d.attempts)
        if (!ids.includes(t.id)) lost.push(`kill ${n}, ${kind}: a try of the drill is not in the log`);
    if (now.aside.length > 0) lost.push(`kill ${n}, ${kind}: something could not be read`);
    const newest = now.drafts.sort((a, b) => b.at - a.at)[0];
    if (newest?.draft.recipe) {
      await again.page.goto(`${base}/bench`);
      await again.page
        .getByRole('heading', { name: 'The sums' })
        .waitFor({ timeout: 10_000 })
        .catch(() => lost.push(`kill ${n}, ${kind}: the draft is stored and does not lie on the Bench`));
    }
    await again.context.close();
    if (n % 10 === 0) console.log(`${n} kills, ${lost.length} losses, ${kept.size} kept, ${tries} tries`);
  }
} finally {
  server.kill();
  rmSync(folder, { recursive: true, force: true });
}
lost.forEach((words) => console.log(words));
console.log(`${kills} kills, ${lost.length} losses`);
process.exit(lost.length > 0 ? 1 : 0);
