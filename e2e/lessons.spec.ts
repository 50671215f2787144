import { readFileSync } from 'node:fs';
import type { Browser, Download, Page } from '@playwright/test';
import { expect, goWithin, keepAs, test, typeSticking, written } from './fixture';

const place = (page: Page) => page.locator('ls-lessons');
const read = async (download: Promise<Download>): Promise<string> =>
  readFileSync((await (await download).path()) ?? '', 'utf8');

/** A file that is opened from the place where lessons are. */
async function bring(page: Page, text: string, name = 'came.json'): Promise<void> {
  await page.goto('/lessons');
  await page.getByRole('button', { name: 'Open a lesson or report' }).click();
  await page
    .locator('ls-bring-in input[type=file]')
    .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
}

/** The next edition of the lesson that is open, as the file that leaves. */
async function send(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Send the lesson' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the file' }).click();
  const text = await read(download);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  return text;
}

interface Sent {
  edition: number;
  items: { phrase: { name: string; recipe: { source: object } } }[];
}

async function other(browser: Browser, baseURL: string | undefined): Promise<Page> {
  const context = await browser.newContext({ serviceWorkers: 'block', ...(baseURL && { baseURL }) });
  return context.newPage();
}

/** Two messy tries of the phrase that is drilled, by ear. */
async function drillTwice(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Start/ }).click();
  for (let i = 0; i < 2; i++) {
    await expect(page.locator('.loops')).toContainText('loop', { timeout: 20_000 });
    await page.keyboard.press('Enter');
    // It begins anew with a count-in.
    await expect(page.locator('.loops')).not.toContainText('loop');
    await written(page);
  }
  await page
    .getByRole('button', { name: /^Stop here/ })
    .first()
    .click();
  await written(page);
}

test('a teacher and a pupil over three rounds: given, taken, drilled, reported, answered, taken again', async ({
  page: teacher,
  browser,
  baseURL,
}) => {
  test.slow();
  const pupil = await other(browser, baseURL);
  // Round one: two phrases with a note.
  for (const [text, name] of [
    ['R l l R K', 'Rope'],
    ['L r r K', 'Anchor'],
  ] as const) {
    await typeSticking(teacher, text);
    await keepAs(teacher, name);
  }
  await goWithin(teacher, '/shelf');
  await expect(teacher.locator('ls-strip')).toHaveCount(2);
  await teacher.keyboard.press('Control+a');
  await teacher.getByRole('button', { name: 'Put in a lesson' }).click();
  await teacher.getByRole('textbox', { name: 'Name of the lesson' }).fill('Week one');
  await teacher.getByRole('button', { name: 'Make the lesson' }).click();
  await expect(place(teacher).locator('ls-give ol li')).toHaveCount(2);
  await teacher.getByRole('textbox', { name: 'From' }).fill('Mara');
  await teacher.getByRole('textbox', { name: 'Note on phrase 1' }).fill('Keep the left low.');
  await teacher.getByRole('textbox', { name: 'Note on phrase 1' }).press('Tab');
  await written(teacher);
  const first = await send(teacher);

  await bring(pupil, first);
  await expect(pupil.getByRole('heading', { name: 'Week one' })).toBeVisible();
  await expect(pupil.getByText('Keep the left low.')).toBeVisible();
  await pupil.getByRole('button', { name: 'Hear' }).first().click();
  await expect(pupil.getByRole('button', { name: 'Stop' })).toBeVisible();
  // Nothing is kept before it is asked for; two presses take it once.
  await pupil.getByRole('button', { name: 'Take the lesson' }).dblclick();
  await expect(place(pupil).locator('ls-taken ol > li')).toHaveCount(2);
  await pupil.goto('/shelf');
  await expect(pupil.locator('ls-strip')).toHaveCount(2);
  await pupil.locator('ls-board-tabs .tab', { hasText: 'Week one' }).click();
  await expect(pupil.locator('ls-strip')).toHaveCount(2);
  await goWithin(pupil, '/lessons');
  await pupil.getByRole('link', { name: /Week one/ }).click();
  await place(pupil).getByRole('link', { name: 'Drill', exact: true }).first().click();
  await expect(pupil.getByRole('note', { name: 'From the lesson' })).toContainText('Keep the left low.');
  await drillTwice(pupil);
  // A question, and the report.
  await goWithin(pupil, '/lessons');
  await pupil.getByRole('link', { name: /Week one/ }).click();
  await pupil.getByRole('button', { name: 'Ask', exact: true }).first().click();
  await pupil.getByRole('textbox', { name: 'Your question' }).fill('Which hand leads?');
  await pupil.getByRole('button', { name: 'Keep the question' }).click();
  await expect(pupil.getByText('goes with the next report')).toBeVisible();
  await pupil.getByRole('button', { name: 'Send a report' }).click();
  await expect(
    pupil.getByText('2 phrases of this lesson with 2 tries, 1 question and your name as typed.'),
  ).toBeVisible();
  await pupil.getByRole('textbox', { name: 'Your name' }).fill('Ada');
  await pupil.getByRole('textbox', { name: 'Your name' }).press('Tab');
  await written(pupil);
  const reported = pupil.waitForEvent('download');
  await pupil.getByRole('button', { name: 'Save the report' }).click();
  const report = await read(reported);

  // Round two: the report is read, the question answered, a phrase left out and another changed.
  await bring(teacher, report);
  await expect(teacher.getByText('Of “Week one”')).toBeVisible();
  await teacher.getByRole('button', { name: 'Put it with the others' }).click();
  const beside = teacher.locator('ls-beside');
  await expect(beside.locator('thead')).toContainText('Ada');
  await expect(beside.locator('tbody tr').first()).toContainText('2 tries');
  await expect(beside.locator('tbody tr').last()).toContainText('Not begun.');
  await beside.getByRole('textbox', { name: /Which hand leads/ }).fill('The right.');
  await beside.getByRole('textbox', { name: /Which hand leads/ }).press('Tab');
  await teacher.getByRole('textbox', { name: 'Note on phrase 1' }).fill('Now louder.');
  await teacher.getByRole('textbox', { name: 'Note on phrase 1' }).press('Tab');
  await teacher.getByRole('button', { name: 'Leave out' }).last().click();
  await expect(place(teacher).locator('ls-give ol li')).toHaveCount(1);
  await written(teacher);
  // Nothing of the pupil's tries is in the teacher's own log.
  const second = await send(teacher);
  await goWithin(teacher, '/log');
  await expect(teacher.locator('ls-log')).not.toContainText('2 tries');

  await bring(pupil, second);
  const told = pupil.getByRole('region', { name: 'What is different' });
  await expect(told).toContainText('has other notes');
  await expect(told).toContainText('is left out. It stays on your shelf.');
  await expect(told).toContainText('Your question is answered: The right.');
  await pupil.getByRole('button', { name: 'Take the changes' }).click();
  await expect(place(pupil).locator('ls-taken ol > li')).toHaveCount(1);
  await expect(pupil.getByText('The right.')).toBeVisible();
  await goWithin(pupil, '/shelf');
  await expect(pupil.locator('ls-strip')).toHaveCount(2);
  // The first edition is older now.
  await bring(pupil, first);
  await expect(pupil.getByText('You have a newer edition of this lesson (2)')).toBeVisible();
  await expect(pupil.getByRole('button', { name: 'Take the lesson' })).toBeDisabled();

  // Round three: both change the phrase; the pupil's stays.
  const strip = pupil.locator('ls-strip .title', { hasText: (JSON.parse(second) as Sent).items[0]!.phrase.name });
  await goWithin(pupil, '/shelf');
  await strip.click();
  await expect(pupil.locator('ls-bench')).toBeVisible();
  await pupil.locator('ls-bench h1').click();
  await pupil.keyboard.press('/');
  await pupil.keyboard.type('accent 1');
  await pupil.keyboard.press('Enter');
  await expect(pupil.locator('.move')).toHaveCount(1);
  await keepAs(pupil, (JSON.parse(second) as Sent).items[0]!.phrase.name);
  await written(pupil);
  const third = JSON.parse(second) as Sent;
  third.edition = 3;
  third.items[0]!.phrase.recipe.source = { kind: 'typed', text: 'R R L L', meter: '4/4', grid: 1260 };
  await bring(pupil, JSON.stringify(third));
  await expect(told).toContainText('you both changed it. Yours stays.');
  await pupil.getByRole('button', { name: 'Take the changes' }).click();
  await expect(place(pupil).locator('ls-taken ol > li')).toHaveCount(1);
  await goWithin(pupil, '/shelf');
  await strip.click();
  await expect(pupil.locator('.move')).toHaveCount(1);
  await pupil.context().close();
});

test('a lesson in a link is seen by a visitor and leaves nothing until it is taken', async ({
  page,
  browser,
  baseURL,
}) => {
  await typeSticking(page, 'R l l R K');
  await keepAs(page, 'Rope');
  await goWithin(page, '/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Put in a lesson' }).click();
  await page.getByRole('textbox', { name: 'Name of the lesson' }).fill('One rope');
  await page.getByRole('button', { name: 'Make the lesson' }).click();
  await page.getByRole('button', { name: 'Send the lesson' }).click();
  const link = page.getByRole('textbox', { name: 'The link' });
  await expect(link).toHaveValue(/lessons#l=/);
  await expect(page.getByRole('img', { name: 'The link as a code' })).toBeVisible();
  const address = await link.inputValue();
  const visitor = await other(browser, baseURL);
  await visitor.goto(address);
  await expect(visitor.getByRole('heading', { name: 'One rope' })).toBeVisible();
  await visitor.getByRole('button', { name: 'Not now' }).click();
  await goWithin(visitor, '/shelf');
  await expect(visitor.getByRole('heading', { name: 'Nothing here yet' })).toBeVisible();
  // A changed letter in the middle opens nothing else.
  const at = address.indexOf('#l=') + 40;
  await visitor.goto(`${address.slice(0, at)}_-_${address.slice(at + 3)}`);
  await visitor.reload();
  await expect(visitor.getByRole('heading', { name: 'This lesson cannot be opened' })).toBeVisible();
  await visitor.context().close();
});

test('what is no lesson, and a report of none, is said and nothing is kept', async ({ page }) => {
  for (const [text, words] of [
    ['{"format":"loop-shelf-lesson"', 'This lesson is cut off or damaged.'],
    ['{"format":"loop-shelf-lesson","version":9}', 'made with a newer Loop Shelf'],
    ['{"format":"loop-shelf-lesson","version":1,"id":"a"}', 'This lesson cannot be read'],
    ['{"format":"loop-shelf-report","version":1}', 'This report cannot be read'],
  ] as const) {
    await bring(page, text);
    await expect(page.locator('ls-bring-in')).toContainText(words);
    await page.keyboard.press('Escape');
  }
  const report = {
    format: 'loop-shelf-report',
    version: 1,
    lesson: 'never',
    edition: 1,
    pupil: 'p',
    from: '<img src=x onerror=alert(1)>',
    made: 5,
    since: 1,
    items: [],
    questions: [],
  };
  await bring(page, JSON.stringify(report));
  await expect(page.getByText('a lesson that you did not give, or have deleted')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'A report from <img src=x onerror=alert(1)>' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Put it with the others' })).toBeDisabled();
});
