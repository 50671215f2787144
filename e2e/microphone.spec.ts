import { mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { playing, synthesise } from '../app/audio/voices';
import { expect, keepAs, test, typeSticking } from './fixture';

const RATE = 48_000;
const PER_SECOND = 8;

/** A WAV of a steady stream of snare strokes with a little noise: what the fake microphone hears, again and again. */
function wav(): string {
  const seconds = 30;
  const samples = new Float32Array(RATE * seconds);
  for (let n = 0; n < seconds * PER_SECOND; n++) {
    const { name, gain } = playing('snare', n % 2 ? 90 : 100);
    synthesise(name, RATE).forEach((v, i) => {
      const at = Math.round((n / PER_SECOND) * RATE) + i;
      if (at < samples.length) samples[at] = (samples[at] ?? 0) + v * gain;
    });
  }
  let seed = 1;
  const data = Buffer.alloc(44 + samples.length * 2);
  data.write('RIFF', 0);
  data.writeUInt32LE(36 + samples.length * 2, 4);
  data.write('WAVEfmt ', 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(RATE, 24);
  data.writeUInt32LE(RATE * 2, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write('data', 36);
  data.writeUInt32LE(samples.length * 2, 40);
  samples.forEach((v, i) => {
    seed = (seed * 16807) % 2147483647;
    const noisy = v + 0.002 * ((seed / 2147483647) * 2 - 1);
    data.writeInt16LE(Math.round(Math.max(-1, Math.min(1, noisy)) * 32767), 44 + i * 2);
  });
  const folder = resolve('test-results');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, `microphone-${process.pid}.wav`);
  writeFileSync(file, data);
  return file;
}

const chromium = process.env['CHROMIUM'] ?? '/usr/bin/chromium';
test.use({
  permissions: ['microphone'],
  launchOptions: {
    executablePath: chromium,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-dev-shm-usage',
      '--autoplay-policy=no-user-gesture-required',
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${wav()}`,
    ],
  },
});

test('the microphone hears strokes on a pad: the limb test gives the rate that was played', async ({ page }) => {
  await page.goto('/kit?part=hands');
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.getByRole('button', { name: 'Start the limb test' }).click();
  await expect(page.locator('.result')).toBeVisible({ timeout: 30_000 });
  const rate = Number(/([\d.]+) strokes/.exec((await page.locator('.result').textContent()) ?? '')?.[1]);
  expect(Math.abs(rate / PER_SECOND - 1)).toBeLessThan(0.03);
  await expect(page.locator('.result')).toContainText('even');
});

test('the microphone judges a rung: hits are dots, the try has a verdict, and what listens is in the log', async ({
  page,
}) => {
  await typeSticking(page, '(R L R L)x4');
  await keepAs(page, 'Pad', '200');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Only the whole' }).click();
  // The pad is struck on 16ths at 120, wherever the click begins: steady, and off by as much everywhere.
  for (const [label, value] of [
    ['Start tempo', '120'],
    ['Loops a rung', '2'],
  ] as const) {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Enter');
  }
  await page.getByRole('button', { name: 'Microphone' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('.hit').nth(7)).toBeVisible({ timeout: 20_000 });
  await page.waitForTimeout(6000);
  await page.keyboard.press('Enter');
  await expect(page.locator('ls-judged .verdict')).toHaveText(/Clean|Close|Loose/);
  const spread = Number(/± (\d+) ms/.exec((await page.locator('ls-judged').textContent()) ?? '')?.[1]);
  expect(spread).toBeLessThan(12);
  await page.keyboard.press('Escape');
  await page.goto('/log');
  await expect(page.locator('tbody tr').first()).toContainText('±');
});
