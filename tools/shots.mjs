// Pictures of the main places with the demo shelf, for docs/screenshots/. Needs a build.
import { chromium } from '@playwright/test';
import { ensureChromium, startServer } from './shared.mjs';

const port = 4391;
const base = `http://127.0.0.1:${port}`;
const server = await startServer(port);
const browser = await chromium.launch({
  executablePath: ensureChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' });
const shot = (name) => page.screenshot({ path: `docs/screenshots/${name}.png` });
const open = async (path) => {
  await page.goto(base + path);
  await page.waitForTimeout(700);
};

try {
  await open('/?shelf=demo');
  await page.locator('ls-strip ls-ribbon svg').first().waitFor();
  await shot('shelf');
  await open('/bench/salt-1');
  await page.getByRole('button', { name: /^Fill 2 bars/ }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.waitForTimeout(1600);
  await shot('bench');
  await page.keyboard.press('Space');
  await page.keyboard.press('a');
  await page.waitForTimeout(400);
  await shot('paths');
  await page.keyboard.press('b');
  await page.locator('ls-sticking-sheet article').first().waitFor();
  await page.waitForTimeout(600);
  await shot('stickings');
  await open('/lessons?give=lantern-lesson');
  await page.locator('ls-beside tbody tr').first().waitFor();
  await page.locator('ls-beside').evaluate((e) => e.scrollIntoView({ block: 'start' }));
  await page.waitForTimeout(500);
  await shot('lessons');
  await open('/shelf');
  await page.getByRole('button', { name: 'Bring in' }).click();
  await page.locator('ls-bring-in input[type=file]').setInputFiles('e2e/files/harbour.mid');
  await page.locator('ls-bring-in .bar').nth(2).click();
  await page.waitForTimeout(900);
  await shot('bring-in');
  await open('/bench/salt-17');
  await page.getByRole('button', { name: 'Ask', exact: true }).click();
  const line = page.getByLabel('Say what it must have');
  await line.fill('two bars of 7/8 in 16ths, hits on 1 and 5, kick on 7, threes fours and fives, last one cut');
  await line.press('Enter');
  await page.locator('ls-compose-sheet ls-found-row').first().waitFor();
  await page.waitForTimeout(1500);
  await shot('ask');
  await open('/shelf');
  await page.locator('ls-strip').first().waitFor();
  await page.getByRole('button', { name: 'Map', exact: true }).click();
  await page.locator('ls-shelf-map .step').first().waitFor();
  await page.locator('ls-shelf-map .square.leads').first().click();
  await page.waitForTimeout(1500);
  await shot('map');
  await open('/shows');
  await page.locator('ls-ready-chart svg').waitFor();
  await page.keyboard.press('f');
  await page.locator('ls-notices').getByText('spots filled').waitFor();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  // The notice goes by itself.
  await page.waitForTimeout(7000);
  await shot('shows');
  await open('/play?mode=calls');
  await page.getByRole('combobox', { name: 'What listens' }).click();
  await page.getByRole('option', { name: 'Simulated player' }).click();
  await page.getByRole('button', { name: /^Begin/ }).click();
  await page.getByText(/came at once/).waitFor();
  await page.locator('.call.now').waitFor();
  await shot('play');
  await page.keyboard.press('Escape');
  await open('/listen');
  await page.getByRole('button', { name: 'a groove' }).click();
  await page.getByText('strokes found').waitFor();
  const wave = await page.locator('ls-wave').nth(1).boundingBox();
  await page.mouse.move(wave.x + wave.width * 0.045, wave.y + 60);
  await page.mouse.down();
  await page.mouse.move(wave.x + wave.width * 0.3, wave.y + 60);
  await page.mouse.move(wave.x + wave.width * 0.44, wave.y + 60);
  await page.mouse.up();
  await page.locator('.school').first().waitFor();
  await page.waitForTimeout(500);
  await shot('listen');
  await open('/today');
  await page.locator('ls-block-row').first().waitFor();
  await page.waitForTimeout(500);
  await shot('today');
  await open('/log?phrase=salt-7');
  await page.locator('ls-chart svg').waitFor();
  await page.waitForTimeout(400);
  await shot('log');
  await open('/kit');
  await page.getByRole('button', { name: /^Right crash,/ }).click();
  await shot('kit');
  await page.getByRole('tab', { name: 'My hands and feet' }).click();
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.getByRole('button', { name: 'to and fro' }).click();
  await page.getByRole('button', { name: 'Start the travel test' }).click();
  await page.locator('.result').waitFor();
  await page.getByRole('button', { name: 'Use as my travel time' }).click();
  await page.getByRole('button', { name: 'singles' }).click();
  await page.getByRole('button', { name: 'Start the limb test' }).click();
  await page.locator('.result').waitFor();
  await shot('hands');
  await open('/drill/salt-5');
  const fresh = page.getByRole('button', { name: 'New ladder' });
  if ((await fresh.count()) > 0) await fresh.first().click();
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await shot('drill-setup');
  await page.getByLabel('Lateness of the simulated kick').fill('22');
  await page.getByLabel('Lateness of the simulated kick').press('Enter');
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  for (const [label, value] of [
    ['Start tempo', '150'],
    ['Goal tempo', '180'],
    ['Loops a rung', '2'],
  ]) {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Enter');
  }
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.locator('ls-judged').waitFor({ timeout: 60_000 });
  await page.waitForTimeout(5200);
  await shot('drill');
  await page.keyboard.press('ArrowLeft');
  await open('/log?phrase=salt-5');
  await page
    .getByRole('button', { name: /^Hear the take/ })
    .first()
    .click();
  await page.waitForTimeout(1600);
  await shot('take');
  // On a tablet's stand: bars of time before the fill, which is in sight before it is due.
  await page.setViewportSize({ width: 820, height: 1180 });
  await open('/drill/salt-7');
  if ((await fresh.count()) > 0) await fresh.first().click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  await page.getByRole('button', { name: 'Add a stage' }).click();
  await page.getByRole('menuitem', { name: /^One bar of groove/ }).click();
  await page.getByRole('button', { name: /^Remove: The whole/ }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await page.locator('.bar-name', { hasText: 'bar 2' }).first().waitFor();
  await page.waitForTimeout(6000);
  await shot('context');
} finally {
  await browser.close();
  server.kill();
}
