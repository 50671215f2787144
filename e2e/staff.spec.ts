import { buildSync } from 'esbuild';
import { expect, test } from './fixture';
import type { Measured } from './staff-harness';

test('every phrase of the demo and 200 random ones are engraved with nothing on each other, and a letter to every stroke', async ({
  page,
}) => {
  const { outputFiles } = buildSync({
    entryPoints: ['e2e/staff-harness.ts'],
    bundle: true,
    format: 'iife',
    write: false,
    alias: { '@core': './core' },
  });
  await page.addInitScript({ content: outputFiles[0]?.text ?? '' });
  await page.goto('/');
  for (const width of [820, 1180]) {
    const drawn = await page.evaluate<Measured[], number>(
      (w) => (window as unknown as { measureAll(n: number, w: number): Promise<Measured[]> }).measureAll(200, w),
      width,
    );
    expect(drawn.length).toBeGreaterThan(230);
    const wrong = drawn
      .filter((d) => d.collisions.length > 0 || d.outside.length > 0 || d.letters !== d.strokes)
      .map(
        (d) =>
          `${d.name}: ${d.letters}/${d.strokes} letters, outside ${d.outside.slice(0, 2).join('; ')}, ${d.collisions.slice(0, 3).join('; ')}`,
      );
    expect(wrong).toEqual([]);
  }
});
