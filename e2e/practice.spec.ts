import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { choose, expect, fromMenu, keepAs, openDemo, test, typeSticking } from './fixture';

/** A phrase of one's own in the practice room, set up to be over quickly. */
async function room(page: Page, text: string, { start = 240, goal = 260, loops = 2, only = true } = {}): Promise<void> {
  await typeSticking(page, text);
  await keepAs(page, 'Practice', '300');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page.getByRole('heading', { name: 'Stages' })).toBeVisible();
  if (only) await page.getByRole('button', { name: 'Whole phrase only' }).click();
  for (const [label, value] of [
    ['Start tempo', start],
    ['Goal tempo', goal],
    ['Loops a rung', loops],
  ] as const) {
    await page.getByLabel(label).fill(String(value));
    await page.getByLabel(label).press('Enter');
  }
}

test('the simulated player climbs by measured loops; set to drag its kick, it is told so by count', async ({
  page,
}) => {
  await room(page, '(R L)x7 R K', { start: 120, goal: 130 });
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.getByLabel('Lateness of the simulated kick').fill('24');
  await page.getByLabel('Lateness of the simulated kick').press('Enter');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.hit').first()).toBeVisible({ timeout: 20_000 });
  await expect(page.locator('ls-judged .fix')).toHaveText(/The kick on the a of 4 is \d+ ms late\./, {
    timeout: 40_000,
  });
  await page.keyboard.press('Escape');
  await expect(page.locator('header')).toContainText('Stopped at');
  await page.getByRole('button', { name: 'Details' }).click();
  await expect(page.locator('ls-judged')).toContainText('tempo');
  await page.goto('/log');
  await expect(page.locator('tbody tr:not(.sitting)').first()).toContainText('spread');
  await page
    .getByRole('button', { name: /^Hear the take/ })
    .first()
    .click();
  const take = page.locator('ls-take-view');
  await expect(take.locator('.fix')).toHaveText(/The kick on the a of 4 is/);
  await expect(take.locator('.hit').nth(20)).toBeVisible();
  await expect(take.locator('.playhead')).toHaveCount(1);
  await take.getByRole('button', { name: 'both' }).click();
  await take.getByRole('button', { name: 'Stop' }).click();
  await expect(take.locator('.playhead')).toHaveCount(0);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: /^Save the take/ })
      .first()
      .click(),
  ]);
  const chunks: Buffer[] = [];
  for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
  const saved = JSON.parse(Buffer.concat(chunks).toString()) as {
    take: { hits: unknown[] };
    attempt: { measured: { finding: { kind: string; stroke: { voice: string } } } };
  };
  expect(saved.take.hits.length).toBeGreaterThan(20);
  expect(saved.attempt.measured.finding).toMatchObject({ limb: 'K', stroke: { voice: 'kick' } });
});

test('an even simulated player goes up by itself, stage by stage, to the goal', async ({ page }) => {
  await room(page, 'R! l R l', { start: 230, goal: 240, loops: 1, only: false });
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.getByLabel('Spread of the simulated player').fill('2');
  await page.getByLabel('Spread of the simulated player').press('Enter');
  await page.getByLabel('Step').fill('10');
  await page.getByLabel('Step').press('Enter');
  await page.locator('h1').click();
  await expect(page.getByRole('button', { name: /^Remove/ })).not.toHaveCount(1);
  for (let i = 0; i < 12; i++) {
    if ((await page.getByText('Goal 240 was clean.').count()) > 0) break;
    await page.keyboard.press('Space');
    await expect(page.getByRole('button', { name: 'New ladder' }).first()).toBeVisible({ timeout: 30_000 });
  }
  await expect(page.getByText('Goal 240 was clean.')).toBeVisible();
});

for (const [school, first] of [
  ['Steps in bpm', '240'],
  ['Steps in percent', '240'],
  ['Shares of the goal', '240'],
  ['Three plateaus', '240'],
  ['Two up, one back', '240'],
] as const) {
  test(`a ladder of the school “${school}” is drawn and played by ear`, async ({ page }) => {
    await room(page, 'R L', { start: 240, goal: 320, loops: 1 });
    await choose(page, 'Kind of ladder', school);
    await page.getByLabel('Loops a rung').fill('1');
    await page.getByLabel('Loops a rung').press('Enter');
    await expect.poll(() => page.locator('ls-stairs rect').count()).toBeGreaterThanOrEqual(3);
    await page.locator('h1').click();
    await page.keyboard.press('Space');
    await expect(page.locator('.huge')).toHaveText(first);
    await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
    await page.keyboard.press('Space');
    await expect(page.locator('.huge')).not.toHaveText(first);
    await page.keyboard.press('Escape');
  });
}

test('stay keeps the rung, three messy tries offer the tight spot, and taking it out comes back', async ({ page }) => {
  await room(page, 'R L R L R L R R', { start: 240, goal: 300, loops: 1 });
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.keyboard.press('s');
  await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
  await page.keyboard.press('Space');
  await expect(page.locator('header')).toContainText('240 was clean.');
  await expect(page.locator('.huge')).toHaveText('240');
  for (let i = 0; i < 3; i++) {
    await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
    await page.keyboard.press('Enter');
    if (i < 2) await expect(page.locator('.loops')).toContainText('count-in');
  }
  await expect(page.getByText('Three messy tries.')).toBeVisible();
  await page.keyboard.press('i');
  await expect(page.locator('.stage-name')).toContainText('The hard spot');
});

test('MIDI: a pad that is plugged in is heard, taught by hitting, and missed in words when it goes', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const input = { name: 'Stand-in pad', state: 'connected', onmidimessage: null as ((e: unknown) => void) | null };
    const access = { inputs: new Map([['1', input]]), onstatechange: null as (() => void) | null };
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve(access) });
    Object.assign(window, {
      hitPad: (note: number) =>
        input.onmidimessage?.({ data: new Uint8Array([0x99, note, 90]), timeStamp: performance.now() }),
      unplug: () => {
        input.state = 'disconnected';
        access.onstatechange?.();
      },
    });
  });
  await page.goto('/kit?part=devices');
  await page.getByRole('button', { name: 'Listen to MIDI' }).click();
  await expect(page.getByText('Connected: Stand-in pad.')).toBeVisible();
  await page.getByRole('button', { name: 'cross-stick' }).click();
  await page.evaluate(() => (window as unknown as { hitPad(n: number): void }).hitPad(77));
  await expect(page.getByText('last note: 77, cross-stick')).toBeVisible();
  await page.evaluate(() => (window as unknown as { unplug(): void }).unplug());
  await expect(page.getByRole('alert')).toContainText('was unplugged');
});

test('calibration takes the delay of a source off and remembers it; too few taps store nothing', async ({ page }) => {
  test.setTimeout(120_000);
  await room(page, 'R L R L');
  await page.getByRole('button', { name: 'Computer keys', exact: true }).click();
  await page.getByRole('button', { name: 'Measure the delay' }).click();
  await expect(page.getByText('Delay now: 0 ms.')).toBeVisible();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('of 16 clicks were tapped', { exact: false })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('Tap along with every click', { exact: false })).toBeVisible();
  await page.evaluate(async () => {
    for (let i = 0; i < 18; i++) {
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'j', code: 'KeyJ', bubbles: true, cancelable: true }));
      await new Promise((r) => setTimeout(r, 600));
    }
  });
  await expect(page.getByText(/Computer keys: -?\d+ ms delay/)).toBeVisible({ timeout: 20_000 });
});

test('a microphone that is not allowed is said, and the drill goes on by ear; axe finds nothing in the room', async ({
  page,
}) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await room(page, 'R L R L', { loops: 1 });
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.getByRole('button', { name: 'Set the levels' }).click();
  await expect(page.getByRole('alert').first()).toContainText('The microphone was not allowed.');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`)).toEqual([]);
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 15_000 });
  await page.keyboard.press('Space');
  await expect(page.locator('header')).toContainText('was clean.');
});

test('in context: bars of time, then the fill; the stage can be chosen and says why', async ({ page }) => {
  await openDemo(page, '/drill/salt-5');
  const fresh = page.getByRole('button', { name: 'New ladder' });
  await expect(fresh.or(page.getByLabel('Add a stage')).first()).toBeVisible();
  if ((await fresh.count()) > 0) await fresh.click();
  await fromMenu(page, 'Add a stage', 'Seven bars of groove, then the fill');
  await expect(page.locator('strong', { hasText: 'Seven bars of groove, then the fill' })).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Seven bars of groove, then the fill' }).click();
  await expect(page.locator('.stage-name')).toContainText('Seven bars of groove, then the fill');
  // Two bars are in sight: the one that sounds, and the next.
  await expect(page.locator('ls-follow .bar-name')).toHaveText(['bar 1', 'bar 2']);
});
