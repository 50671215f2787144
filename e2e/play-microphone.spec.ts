import { fakeMicrophone, listeningTo } from './fake-microphone';
import { choose, expect, goneOn, keepAs, test, typeSticking } from './fixture';
import { secondsLost } from './page-audio';

const DOUBLES = 'R! L R R L! R L L R! L R! R L! R L! L';
const SLOT = 0.125;
// Quarters, and the phrase in every other bar: it is heard again and again.
const strokes = Array.from({ length: 10 }, (_, bar) =>
  DOUBLES.split(' ').flatMap((t, i) => {
    const at = 0.2 + (16 * bar + i) * SLOT;
    if (bar % 2 === 1) return [{ at, velocity: t.endsWith('!') ? 122 : 50 }];
    return i % 4 === 0 ? [{ at, velocity: 60 }] : [];
  }),
).flat();
test.use(listeningTo(fakeMicrophone('free-play', { seconds: 20, strokes, noise: 0.001, gain: 0.8 })));

test('by microphone: what was played is named, or nothing is; never what was not played', async ({ page }) => {
  await typeSticking(page, DOUBLES);
  await keepAs(page, 'Doubles');
  await typeSticking(page, 'R! - L R! - L R! - L R! - L R! L R! L');
  await keepAs(page, 'Never played');
  await page.goto('/play');
  await choose(page, 'Over', 'nothing');
  await choose(page, 'What listens', 'Microphone');
  await page.getByRole('button', { name: /^Begin/ }).click();
  await expect(page.getByText('Your tempo is found when you stop.')).toBeVisible();
  await goneOn(page, 17);
  await page.getByRole('button', { name: /^Stop/ }).click();
  const told = page.locator('.told');
  await expect(told).toHaveText(/^(Doubles came|None of your 2 phrases came)/);
  await expect(told).not.toContainText('Never played');
  // Where the machine lost no sound, what was played so clearly is heard.
  if ((await secondsLost(page)) < 0.05) await expect(told).toHaveText(/^Doubles came/);
});
