import fc from 'fast-check';
import type { Phrase } from '../recipe';
import {
  EMPTY_SHELF,
  merged,
  mergeReport,
  MOST_STATES,
  SHOW_LIMITS,
  showState,
  stateOf,
  type ShelfContents,
  type Show,
} from '.';

/** A device in the hands of a player, told by plain steps and apart from the code that merges. */
interface Device {
  shelf: ShelfContents;
  /** By how much its clock is wrong, in milliseconds. */
  readonly off: number;
}

type Step =
  | {
      readonly kind: 'keep' | 'remove' | 'put back' | 'try' | 'correct' | 'take out' | 'book' | 'cancel';
      readonly device: number;
      readonly phrase: number;
      readonly word: number;
    }
  | { readonly kind: 'set'; readonly device: number; readonly field: number; readonly word: number }
  | { readonly kind: 'read'; readonly device: number; readonly from: number };

const RECIPE = { source: { kind: 'typed' as const, text: 'R L', meter: '4/4', grid: 1260 }, moves: [] };

function keep(d: Device, id: string, name: string, at: number): void {
  const { phrases, states, removals } = d.shelf;
  const old = phrases.find((p) => p.id === id);
  const gone = removals.find((r) => r.id === id);
  const changed = Math.max(at, (old?.changed ?? -1) + 1, (gone?.at ?? -1) + 1);
  const phrase: Phrase = {
    id,
    name,
    family: 'fill',
    recipe: RECIPE,
    tempo: 90,
    goal: 100,
    note: '',
    created: 0,
    changed,
  };
  d.shelf = {
    ...d.shelf,
    phrases: [...phrases.filter((p) => p.id !== id), phrase],
    states: old ? [...states, stateOf(old)] : states,
  };
}

function remove(d: Device, id: string, at: number): void {
  const phrase = d.shelf.phrases.find((p) => p.id === id);
  if (!phrase) return;
  d.shelf = {
    ...d.shelf,
    phrases: d.shelf.phrases.filter((p) => p.id !== id),
    removals: [...d.shelf.removals.filter((r) => r.id !== id), { id, at: Math.max(at, phrase.changed), phrase }],
  };
}

function putBack(d: Device, id: string, at: number): void {
  const gone = d.shelf.removals.find((r) => r.id === id);
  if (!gone?.phrase || d.shelf.phrases.some((p) => p.id === id)) return;
  d.shelf = {
    ...d.shelf,
    phrases: [...d.shelf.phrases, { ...gone.phrase, changed: Math.max(at, gone.at + 1) }],
    removals: d.shelf.removals.map((r) => (r.id === id ? { ...r, phrase: null } : r)),
  };
}

function play(d: Device, phrase: string, id: string, at: number): void {
  const attempt = { id, phrase, at, bpm: 80, goal: 100, loops: 4, seconds: 10, verdict: 'clean' as const };
  d.shelf = { ...d.shelf, attempts: [...d.shelf.attempts, attempt] };
}

/** Corrects one of a device's own tries, or takes it out of the log: each later than what it knew of it. */
function correct(d: Device, word: number, at: number, off: boolean): void {
  const old = d.shelf.attempts[word % Math.max(1, d.shelf.attempts.length)];
  if (!old) return;
  const { off: _off, ...standing } = old;
  const next = {
    ...standing,
    note: `note ${word}`,
    corrected: Math.max(at, (old.corrected ?? 0) + 1),
    ...(off ? { off: true as const } : {}),
  };
  d.shelf = { ...d.shelf, attempts: d.shelf.attempts.map((t) => (t.id === old.id ? next : t)) };
}

/** A show is changed, or dropped: what stood is among its earlier states. */
function book(d: Device, id: string, name: string, at: number, dropped: boolean): void {
  const old = d.shelf.shows.find((s) => s.id === id);
  if (dropped && !old) return;
  const changed = Math.max(at, (old?.changed ?? -1) + 1);
  const show: Show = { id, name, place: '', day: null, most: 2, cues: [], changed, ...(dropped ? { dropped } : {}) };
  d.shelf = {
    ...d.shelf,
    shows: [...d.shelf.shows.filter((s) => s.id !== id), show],
    showStates: old ? [...d.shelf.showStates, showState(old)] : d.shelf.showStates,
  };
}

function set(d: Device, field: string, word: number, at: number): void {
  const old = d.shelf.named.find((n) => n.key === 'settings') ?? { key: 'settings', value: {} };
  const before = old.stamps?.[field] ?? 0;
  const next = {
    ...old,
    value: { ...(old.value as object), [field]: word },
    stamps: { ...old.stamps, [field]: Math.max(at, before + 1) },
  };
  d.shelf = { ...d.shelf, named: [...d.shelf.named.filter((n) => n.key !== 'settings'), next] };
}

function run(
  steps: readonly Step[],
  offs: readonly number[],
): { devices: Device[]; tries: Set<string>; kept: Set<string> } {
  const devices = offs.map((off): Device => ({ shelf: EMPTY_SHELF, off }));
  const [tries, kept] = [new Set<string>(), new Set<string>()];
  steps.forEach((step, i) => {
    const d = devices[step.device % devices.length];
    if (!d) return;
    // An hour a step, on a clock that is wrong.
    const at = Math.max(0, 1e12 + i * 3_600_000 + d.off);
    switch (step.kind) {
      case 'keep':
        keep(d, `p${step.phrase}`, `name ${step.word}`, at);
        kept.add(`p${step.phrase}`);
        break;
      case 'remove':
        remove(d, `p${step.phrase}`, at);
        break;
      case 'put back':
        putBack(d, `p${step.phrase}`, at);
        break;
      case 'try':
        play(d, `p${step.phrase}`, `t${i}`, at);
        tries.add(`t${i}`);
        break;
      case 'book':
      case 'cancel':
        book(d, `s${step.phrase}`, `show ${step.word}`, at, step.kind === 'cancel');
        break;
      case 'correct':
      case 'take out':
        correct(d, step.word, at, step.kind === 'take out');
        break;
      case 'set':
        set(d, `f${step.field}`, step.word, at);
        break;
      case 'read': {
        const other = devices[step.from % devices.length];
        if (other) d.shelf = merged(d.shelf, other.shelf);
      }
    }
  });
  return { devices, tries, kept };
}

const device = fc.nat(2);
const anyStep: fc.Arbitrary<Step> = fc.oneof(
  fc.record({
    kind: fc.constantFrom(
      'keep' as const,
      'keep' as const,
      'remove' as const,
      'put back' as const,
      'try' as const,
      'correct' as const,
      'take out' as const,
      'book' as const,
      'book' as const,
      'cancel' as const,
    ),
    device,
    phrase: fc.nat(3),
    word: fc.nat(3),
  }),
  fc.record({ kind: fc.constant('set' as const), device, field: fc.nat(2), word: fc.nat(5) }),
  fc.record({ kind: fc.constant('read' as const), device, from: device }),
);
const anyHistory = fc.record({
  steps: fc.array(anyStep, { maxLength: 60 }),
  // Clocks that are wrong by up to ten hours.
  offs: fc.tuple(fc.integer({ min: -36e6, max: 36e6 }), fc.integer({ min: -36e6, max: 36e6 }), fc.constant(0)),
});

describe('two devices and three', () => {
  it('in either order the same; twice changes nothing; however three are brought together the same', () => {
    fc.assert(
      fc.property(anyHistory, ({ steps, offs }) => {
        const [a, b, c] = run(steps, offs).devices.map((d) => d.shelf) as [ShelfContents, ShelfContents, ShelfContents];
        expect(merged(a, b)).toEqual(merged(b, a));
        const ab = merged(a, b);
        expect(merged(ab, b)).toEqual(ab);
        expect(merged(ab, ab)).toEqual(ab);
        expect(merged(ab, c)).toEqual(merged(a, merged(b, c)));
      }),
      { numRuns: 150 },
    );
  });

  it('three in a ring agree after two rounds', () => {
    fc.assert(
      fc.property(anyHistory, ({ steps, offs }) => {
        const { devices } = run(steps, offs);
        for (let round = 0; round < 2; round++)
          devices.forEach((d, i) => {
            const next = devices[(i + 1) % 3];
            if (next) next.shelf = merged(next.shelf, d.shelf);
          });
        const [a, b, c] = devices.map((d) => d.shelf);
        expect(a).toEqual(b);
        expect(b).toEqual(c);
      }),
      { numRuns: 80 },
    );
  });

  it('no try is lost, and no phrase: it lies on the shelf, or it was taken off and can be brought back', () => {
    fc.assert(
      fc.property(anyHistory, ({ steps, offs }) => {
        const { devices, tries, kept } = run(steps, offs);
        const all = devices.reduce((sum, d) => merged(sum, d.shelf), EMPTY_SHELF);
        expect(new Set(all.attempts.map((t) => t.id))).toEqual(tries);
        for (const id of kept) {
          const here = all.phrases.filter((p) => p.id === id).length;
          const off = all.removals.filter((r) => r.id === id && r.phrase !== null).length;
          expect([id, here + off]).toEqual([id, 1]);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('of a try that was corrected on two devices the later correction stands, taken out or not', () => {
    fc.assert(
      fc.property(anyHistory, ({ steps, offs }) => {
        const { devices } = run(steps, offs);
        const all = devices.reduce((sum, d) => merged(sum, d.shelf), EMPTY_SHELF);
        for (const t of all.attempts) {
          const told = devices.flatMap((d) => d.shelf.attempts.filter((x) => x.id === t.id));
          const newest = Math.max(...told.map((x) => x.corrected ?? 0));
          expect(t.corrected ?? 0).toBe(newest);
          expect(told.filter((x) => (x.corrected ?? 0) === newest).map((x) => x.off ?? false)).toContain(
            t.off ?? false,
          );
        }
      }),
      { numRuns: 100 },
    );
  });

  it('the one that was kept last stands, and every other is among the earlier states', () => {
    fc.assert(
      fc.property(anyHistory, ({ steps, offs }) => {
        const { devices } = run(
          steps.filter((s) => s.kind === 'keep' || s.kind === 'try' || s.kind === 'read'),
          offs,
        );
        const all = devices.reduce((sum, d) => merged(sum, d.shelf), EMPTY_SHELF);
        for (const p of all.phrases) {
          const versions = devices.flatMap((d) => [
            ...d.shelf.phrases.filter((x) => x.id === p.id).map(stateOf),
            ...d.shelf.states.filter((s) => s.phrase === p.id),
          ]);
          const newest = Math.max(...versions.map((v) => v.at));
          expect(p.changed).toBe(newest);
          const kept = new Set(all.states.filter((s) => s.phrase === p.id).map((s) => s.id));
          const others = new Set(versions.map((v) => v.id).filter((id) => id !== stateOf(p).id));
          expect(kept.size).toBe(Math.min(MOST_STATES, others.size));
          for (const id of kept) expect(others.has(id)).toBe(true);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('the show that was changed last stands, dropped or not, and every other is among its earlier states', () => {
    fc.assert(
      fc.property(anyHistory, ({ steps, offs }) => {
        const { devices } = run(steps, offs);
        const all = devices.reduce((sum, d) => merged(sum, d.shelf), EMPTY_SHELF);
        for (const show of all.shows) {
          const versions = devices.flatMap((d) => [
            ...d.shelf.shows.filter((x) => x.id === show.id).map(showState),
            ...d.shelf.showStates.filter((s) => s.show === show.id),
          ]);
          expect(show.changed).toBe(Math.max(...versions.map((v) => v.at)));
          const others = new Set(versions.map((v) => v.id).filter((id) => id !== showState(show).id));
          const kept = all.showStates.filter((s) => s.show === show.id).map((s) => s.id);
          expect(kept.length).toBe(Math.min(SHOW_LIMITS.states, others.size));
          for (const id of kept) expect(others.has(id)).toBe(true);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('a field that was set last stands, whatever else was set elsewhere', () => {
    const [a, b] = run(
      [
        { kind: 'set', device: 0, field: 0, word: 1 },
        { kind: 'set', device: 1, field: 1, word: 2 },
        { kind: 'set', device: 0, field: 2, word: 3 },
        { kind: 'set', device: 1, field: 2, word: 4 },
      ],
      [0, 0, 0],
    ).devices;
    expect(merged(a!.shelf, b!.shelf).named).toEqual([
      { key: 'settings', value: { f0: 1, f1: 2, f2: 4 }, stamps: expect.anything() as unknown },
    ]);
  });

  it('what a merge did is told phrase by phrase', () => {
    const { devices } = run(
      [
        { kind: 'keep', device: 0, phrase: 0, word: 0 },
        { kind: 'keep', device: 0, phrase: 1, word: 0 },
        { kind: 'keep', device: 0, phrase: 2, word: 0 },
        { kind: 'read', device: 1, from: 0 },
        { kind: 'keep', device: 1, phrase: 0, word: 1 },
        { kind: 'keep', device: 1, phrase: 3, word: 1 },
        { kind: 'remove', device: 1, phrase: 2, word: 0 },
        { kind: 'keep', device: 0, phrase: 1, word: 2 },
        { kind: 'try', device: 1, phrase: 0, word: 0 },
      ],
      [0, 0, 0],
    );
    const [ours, theirs] = [devices[0]!.shelf, devices[1]!.shelf];
    const report = mergeReport(ours, theirs, merged(ours, theirs));
    expect(Object.fromEntries(report.lines.map((l) => [l.id, l.kind]))).toEqual({
      p0: 'theirs stands',
      p1: 'ours stands',
      p2: 'taken off',
      p3: 'new',
    });
    expect(report.tries).toBe(1);
  });
});
