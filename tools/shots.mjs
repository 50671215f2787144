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
  await shot('shelf');
  await open('/bench/salt-1');
  await page.getByRole('button', { name: /^Fill 2 bars/ }).click();
  await page.locator('.middle').click();
  await page.keyboard.press('Space');
  await page.waitForTimeout(1300);
  await shot('bench');
  await page.keyboard.press('Space');
  await open('/bench/salt-12');
  await page.getByRole('button', { name: 'Variants' }).click();
  await page.getByRole('button', { name: 'Find variants' }).click();
  await page.locator('.variant').first().waitFor();
  await page.waitForTimeout(300);
  await shot('variants');
  await open('/log');
  await shot('log');
  await open('/kit');
  await shot('kit');
  await open('/drill/salt-1');
  await page.getByLabel('Start tempo').fill('220');
  await page.getByLabel('Start tempo').press('Enter');
  await page.getByLabel('Goal tempo').fill('260');
  await page.getByLabel('Goal tempo').press('Enter');
  await page.getByLabel('Loops a rung').fill('2');
  await page.getByLabel('Loops a rung').press('Tab');
  await page.locator('.huge').click();
  await page.keyboard.press('Space');
  for (let i = 0; i < 4; i++) {
    await page.waitForTimeout(1500);
    await page.getByText('How was it?').waitFor();
    await page.keyboard.press(i === 2 ? 'Enter' : 'Space');
  }
  await page.waitForTimeout(3600);
  await shot('drill');
} finally {
  await browser.close();
  server.kill();
}
