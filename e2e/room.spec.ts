import type { Page } from '@playwright/test';
import { roomOf, setUp, turn } from './clock';
import { addMove, choose, expect, fromMenu, goneOn, keepAs, openDemo, test, typeSticking } from './fixture';

/** A phrase of one's own in the practice room, the whole of it from the start tempo on. */
async function room(page: Page, text: string, start: number, loops: number): Promise<void> {
  await roomOf(page, text);
  await setUp(page, { 'Start tempo': start, 'Goal tempo': start + 20, Step: 20, 'Loops a rung': loops });
}

test('on a fake clock: a whole drill with Space, Enter and arrows only, from the first rung to the goal', async ({
  page,
}) => {
  await page.clock.install();
  await room(page, 'R L R L', 120, 2);
  await page.locator('h1').click();
  const huge = page.locator('.huge');
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('count-in');
  // A bar of count-in and two loops of a beat at 120: three seconds.
  await turn(page, 1);
  await expect(page.locator('.loops')).toContainText('count-in');
  await turn(page, 2.5);
  await expect(page.locator('.loops')).toContainText('How was it?');
  await page.keyboard.press('Enter');
  await expect(huge).toHaveText('120');
  await turn(page, 3.5);
  await page.keyboard.press('ArrowRight');
  await expect(huge).toHaveText('140');
  await turn(page, 3.5);
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('button', { name: /Continue/ })).toBeVisible();
  await page.keyboard.press('Space');
  await turn(page, 3.5);
  await page.keyboard.press('ArrowDown');
  await turn(page, 3.5);
  await page.keyboard.press('ArrowUp');
  await expect(page.locator('header')).toContainText('Goal 140 was clean.');
  // An hour on the shelf of the clock is no hour in the log.
  await page.goto('/log');
  await expect(page.getByRole('heading', { name: '4 tries' })).toBeVisible();
});

test('on a fake clock: a device that slept breaks the try off, and Space begins the rung again', async ({ page }) => {
  await page.clock.install();
  await room(page, 'R L R L R L R L', 100, 8);
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await turn(page, 3);
  await expect(page.locator('.loops')).toContainText('of 8');
  await page.clock.fastForward(60_000);
  await expect(page.locator('header')).toContainText('The device slept');
  await expect(page.locator('.huge')).toHaveText('100');
  await page.keyboard.press('Space');
  await expect(page.locator('.loops')).toContainText('count-in');
});

test('the sound of the room: click, counts, loudness, half speed; the rung waits meanwhile', async ({ page }) => {
  await room(page, 'R! l l R K R L K', 120, 4);
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.keyboard.press('c');
  const sound = page.getByRole('region', { name: 'Sound' });
  await choose(sound, /^Click/, '2 and 4');
  await sound.getByRole('button', { name: 'Beeps' }).click();
  await sound.getByRole('slider', { name: 'Loudness: click' }).focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft');
  await expect(sound.getByRole('slider', { name: 'Loudness: click' })).toHaveAttribute('aria-valuenow', '80');
  await page.keyboard.press('c');
  await expect(sound).toBeHidden();
  await page.keyboard.press('h');
  await expect(page.locator('.huge')).toHaveText('60');
  await expect(page.locator('header')).toContainText('Half speed: nothing counts.');
  // A turn and more: nothing of it is judged.
  await goneOn(page, 2.5);
  await page.keyboard.press('Space');
  await expect(page.locator('.huge')).toHaveText('120');
  await expect(page.locator('.loops')).toContainText('count-in');
  await page.reload();
  await page.getByRole('button', { name: /^Sound/ }).click();
  await expect(page.getByRole('slider', { name: 'Loudness: click' })).toHaveAttribute('aria-valuenow', '80');
});

test('soft, medium and loud passes of a rung; the simulated player is measured where the click drops out', async ({
  page,
}) => {
  await room(page, '(R L R L)x4', 240, 3);
  await choose(page, 'Loudness', 'each rung soft, medium, loud');
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.getByLabel('Spread of the simulated player').fill('2');
  await page.getByLabel('Spread of the simulated player').press('Enter');
  await choose(page, 'Click drops out', '1 bar in 3');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.pass')).toHaveText('play it soft');
  await expect(page.locator('.pass')).toHaveText('play it medium', { timeout: 20_000 });
  await expect(page.locator('.huge')).toHaveText('240');
  await expect(page.locator('.pass')).toHaveText('play it loud', { timeout: 20_000 });
  await expect(page.locator('.huge')).toHaveText('260', { timeout: 20_000 });
  await expect(page.locator('.pass')).toHaveText('play it soft');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Details' }).click();
  await expect(page.locator('ls-judged')).toContainText('without the click');
});

test('a groove of the shelf keeps the time before the fill', async ({ page }) => {
  await page.goto('/');
  await typeSticking(page, 'K - R - L! - R - K - R - L! - R -');
  await page.getByRole('button', { name: 'Keep it' }).first().click();
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await dialog.getByLabel('Name').fill('Cellar walk');
  await dialog.getByRole('button', { name: 'groove' }).click();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog).toBeHidden();
  await typeSticking(page, 'R L R L K R L K');
  await addMove(page, 'Fill the bars');
  await page.keyboard.press('Escape');
  await keepAs(page, 'Into the cellar', '120');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await fromMenu(page, 'Add a stage', 'One bar of groove, then the fill');
  await choose(page, /^Groove: One bar of groove/, 'Cellar walk');
  await page.getByRole('button', { name: /^Start/ }).click();
  await page.locator('.stage-line button', { hasText: 'One bar of groove' }).click();
  await expect(
    page.locator('ls-ribbon svg title', { hasText: 'beat 2 in bar 1, left hand, accent, snare' }),
  ).toHaveCount(1);
  await expect(page.locator('ls-ribbon svg title', { hasText: 'the & of 1 in bar 1, right hand' })).toHaveCount(1);
  await expect(page.locator('ls-ribbon svg title', { hasText: 'closed hi-hat' })).toHaveCount(0);
});

test('two MIDI devices: heard as one or one alone; unplugged in a take, the drill goes on by ear', async ({ page }) => {
  await page.addInitScript(() => {
    const device = (name: string) => ({
      name,
      state: 'connected',
      onmidimessage: null as ((e: unknown) => void) | null,
    });
    const [pad, kit] = [device('Stand-in pad'), device('Stand-in kit')];
    const access = {
      inputs: new Map([
        ['1', pad],
        ['2', kit],
      ]),
      onstatechange: null as (() => void) | null,
    };
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve(access) });
    Object.assign(window, {
      plug: (first: string, second: string) => {
        [pad.state, kit.state] = [first, second];
        access.onstatechange?.();
      },
    });
  });
  const plug = (first: string, second: string) =>
    page.evaluate(
      ([a, b]) => (window as unknown as { plug(a: string, b: string): void }).plug(a!, b!),
      [first, second],
    );
  await room(page, 'R L R L R L R L', 120, 2);
  await page.getByRole('button', { name: 'MIDI pad or kit' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.getByText('2 devices are heard as one')).toBeVisible();
  await plug('disconnected', 'connected');
  await expect(page.getByText('“Stand-in pad” was unplugged. Still heard: “Stand-in kit”.')).toBeVisible();
  await plug('disconnected', 'disconnected');
  await expect(page.locator('ls-rung-keys [role=alert]')).toContainText('was unplugged');
  await expect(page.locator('ls-rung-keys [role=alert]')).toContainText('goes on; judge by ear');
  await expect(page.locator('.loops')).toContainText('How was it?', { timeout: 20_000 });
  await page.keyboard.press('Space');
  await expect(page.locator('.huge')).toHaveText('140');
});

test('in the demo the Bench has loudness and counts beside what is heard', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.getByRole('button', { name: /^Mix:/ }).click();
  await page.getByRole('button', { name: 'Beeps' }).click();
  await page.getByRole('slider', { name: 'Loudness: texture' }).focus();
  await page.keyboard.press('Home');
  await expect(page.getByRole('button', { name: 'Mix: changed' })).toBeVisible();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.locator('ls-ribbon-editor .playhead')).toHaveCount(1);
  await page.getByRole('button', { name: 'All equal' }).click();
  await expect(page.getByRole('button', { name: 'Mix: all' })).toBeVisible();
});
