import { USUAL_KITS } from '../kit';
import { USUAL_PROFILE, withRate } from '../reach';
import { fieldChanges, mergedNamed, patched, type Named } from '.';

const change = (old: Named | undefined, key: string, before: unknown, after: unknown, at: number): Named =>
  patched(old, key, before, fieldChanges(key, before, after), at);

describe('what is kept under a name', () => {
  it('two profiles: a limb timed on each device is kept of both', () => {
    const right = withRate(USUAL_PROFILE, 'R', 'singles', 9, 100);
    const left = withRate(USUAL_PROFILE, 'L', 'doubles', 8, 200);
    const a = change(undefined, 'profile', USUAL_PROFILE, right, 100);
    const b = change(undefined, 'profile', USUAL_PROFILE, left, 200);
    const both = mergedNamed(a, b);
    expect(mergedNamed(b, a)).toEqual(both);
    expect(both.value).toMatchObject({
      rates: { R: { singles: 9 }, L: { doubles: 8 } },
      measured: expect.arrayContaining([
        { limb: 'R', kind: 'singles', at: 100 },
        { limb: 'L', kind: 'doubles', at: 200 },
      ]) as unknown,
    });
  });

  it('kits: one changed here, one added there, one dropped there', () => {
    const [full, pad] = USUAL_KITS.kits;
    const ours = { ...USUAL_KITS, kits: [{ ...full!, name: 'Mine' }, pad!] };
    const theirs = { ...USUAL_KITS, kits: [full!, { ...full!, id: 'third', name: 'Third' }] };
    const a = change(undefined, 'kits', USUAL_KITS, ours, 100);
    const b = change(undefined, 'kits', USUAL_KITS, theirs, 200);
    const both = mergedNamed(a, b);
    expect(mergedNamed(b, a)).toEqual(both);
    expect((both.value as typeof USUAL_KITS).kits.map((k) => k.name)).toEqual(['Mine', 'Third']);
  });

  it('a patch touches only the fields that were changed', () => {
    const tab1 = change(undefined, 'settings', { theme: 'light', triplets: 'x' }, { theme: 'dark', triplets: 'x' }, 5);
    // The other tab still thinks that the light is as it was.
    const tab2 = patched(
      tab1,
      'settings',
      {},
      fieldChanges('settings', { theme: 'light', triplets: 'x' }, { theme: 'light', triplets: 'y' }),
      6,
    );
    expect(tab2).toEqual({
      key: 'settings',
      value: { theme: 'dark', triplets: 'y' },
      stamps: { theme: 5, triplets: 6 },
    });
  });

  it('a clock that was set back does not make the newer the older', () => {
    const first = change(undefined, 'settings', { a: 1 }, { a: 2 }, 1000);
    const second = change(first, 'settings', { a: 2 }, { a: 3 }, 10);
    expect(second.stamps).toEqual({ a: 1001 });
    expect(mergedNamed(first, second).value).toEqual({ a: 3 });
  });
});
