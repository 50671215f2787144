import fc from 'fast-check';
import { anyMove, METERS } from '../testing/arbitraries';
import { barTicks, countAt, gridsOf, meterText, USUAL_SCHOOLS } from '../time';
import { KIT_PRESETS, USUAL_KIT } from '../kit';
import { USUAL_PROFILE, ceilingOn } from '../reach';
import { rendition } from '../rendition';
import { eventsIn } from '../playback';
import { barsSpan, loopTicks, pickupWords, report, type Pattern } from '../pattern';
import { scoreOf } from '.';
import { stagePattern, STAGE_KINDS } from '../drill';
import { build, type Recipe } from '../recipe';

const lead = (text: string): Recipe['moves'][number] => ({ id: 'p', on: true, move: 'pickup', params: { text } });
const phrase = (meter: string, grid: number, text: string, own = 'R! l K R l'): Recipe => ({
  source: { kind: 'typed', text: own, meter, grid },
  moves: [lead(text)],
});
const withoutLead = (r: Recipe): Recipe => ({ ...r, moves: r.moves.filter((m) => m.move !== 'pickup') });

/** Every meter with every grid it has, and how many slots lead in, up to the bar. */
const anyLed = fc
  .constantFrom(...METERS)
  .chain((m) => fc.tuple(fc.constant(m), fc.constantFrom(...gridsOf(m))))
  .chain(([m, grid]) =>
    fc.record({
      meter: fc.constant(m),
      grid: fc.constant(Number(grid)),
      slots: fc.array(fc.constantFrom('R', 'l', 'K', 'R+K', '-', 'fL!'), {
        minLength: 1,
        maxLength: Math.min(12, Math.floor(barTicks(m) / grid)),
      }),
    }),
  );

describe('a pick-up before the 1', () => {
  it('is heard once, slot by slot up to the 1, in at least a bar of count-in, and never in the loop', () => {
    fc.assert(
      fc.property(anyLed, fc.constantFrom(0, 1, 2), ({ meter, grid, slots }, countInBars) => {
        const recipe = phrase(meterText(meter), grid, slots.join(' '));
        const { pattern } = build(recipe);
        const plain = build(withoutLead(recipe)).pattern;
        const sounds = slots.map((s) => (s === '-' ? 0 : s === 'R+K' ? 2 : 1));
        const bar = barTicks(meter);
        const { program } = rendition({ phrase: pattern, click: 'none', countInBars });
        const before = rendition({ phrase: plain, click: 'none', countInBars });
        const led = sounds.some((n) => n > 0);
        expect(program.countIn).toBe(Math.max(countInBars, led ? 1 : 0) * bar);
        const main = eventsIn(program, -4 * bar, 0).filter((e) => e.part !== 'click' && e.offset === 0);
        // By plain loops: the i-th of n slots stands n - i slots before the 1.
        const wanted: number[] = [];
        sounds.forEach((many, i) => {
          for (let n = 0; n < many; n++) wanted.push(-(slots.length - i) * grid);
        });
        expect(main.map((e) => Math.round(e.at))).toEqual(wanted);
        const turns = 3 * loopTicks(plain);
        expect(eventsIn(program, 0, turns)).toEqual(eventsIn(before.program, 0, turns));
      }),
      { numRuns: 400 },
    );
  });

  it('is no part of any sum: only its own sentence is added, and that one is counted by hand', () => {
    fc.assert(
      fc.property(anyLed, ({ meter, grid, slots }) => {
        const recipe = phrase(meterText(meter), grid, slots.join(' '));
        const { pattern } = build(recipe);
        const all = report(pattern, 100, USUAL_SCHOOLS);
        expect(all.filter((f) => f.code !== 'pickup')).toEqual(
          report(build(withoutLead(recipe)).pattern, 100, USUAL_SCHOOLS),
        );
        const first = slots.findIndex((s) => s !== '-');
        const said = all.find((f) => f.code === 'pickup')?.words ?? null;
        expect(said).toBe(pickupWords(pattern, USUAL_SCHOOLS));
        if (first < 0) return expect(said).toBeNull();
        let many = 0;
        for (const s of slots) many += s === '-' ? 0 : s.includes('+') ? 2 : 1;
        const tick = barTicks(meter) - (slots.length - first) * grid;
        const { beat, syllable } = countAt(tick, { meter, grid: pattern.grid, schools: USUAL_SCHOOLS });
        expect(said).toMatch(new RegExp(`^${many} strokes? leads? in, from .*\\b${beat} before the 1, once$`));
        if (syllable === '') expect(said).toContain(`from beat ${beat} before`);
        return undefined;
      }),
      { numRuns: 300 },
    );
  });

  it('stands in a bar 0 of the staff that begins with it, and every stroke once', () => {
    fc.assert(
      fc.property(anyLed, ({ meter, grid, slots }) => {
        const { pattern } = build(phrase(meterText(meter), grid, slots.join(' ')));
        const written = { ...pattern, strokes: [...pattern.strokes, ...(pattern.pickup ?? [])] };
        const { bars } = scoreOf(written);
        const seen = bars.flatMap((b) => [...b.hands.events, ...(b.feet?.events ?? [])].flatMap((e) => e.strokes));
        expect([...seen].sort((a, b) => a - b)).toEqual(written.strokes.map((_, i) => i));
        const [first] = bars;
        if (!pattern.pickup) return expect(first?.number).toBe(1);
        expect(first?.number).toBe(0);
        expect(bars).toHaveLength(barsSpan(pattern).bars + 1);
        const events = first?.hands.events ?? [];
        // It is full from its first sign to the bar line.
        let at: number = events[0]?.at ?? 0;
        for (const e of events) {
          expect(e.at).toBe(at);
          at += e.length;
        }
        expect(at).toBe(barTicks(meter));
        return undefined;
      }),
      { numRuns: 300 },
    );
  });

  it('lowers the ceiling by what it asks, worked out on the phrase played once, and never raises it', () => {
    fc.assert(
      fc.property(anyLed, fc.constantFrom(...KIT_PRESETS), ({ meter, grid, slots }, kit) => {
        const recipe = phrase(meterText(meter), grid, slots.join(' '));
        const { pattern } = build(recipe);
        const loop = ceilingOn(build(withoutLead(recipe)).pattern, kit, USUAL_PROFILE).bpm ?? Infinity;
        const both = ceilingOn(pattern, kit, USUAL_PROFILE).bpm ?? Infinity;
        expect(both).toBeLessThanOrEqual(loop + 1e-9);
        // Ten bars of silence before and after: nothing but the pick-up and one turn of the phrase.
        const bar = barTicks(meter);
        const once = {
          ...build(withoutLead(recipe)).pattern,
          length: 20 * bar,
          groups: [],
          strokes: [...(pattern.pickup ?? []), ...pattern.strokes].map((s) => ({ ...s, at: s.at + 10 * bar })),
        } as unknown as Pattern;
        expect(both).toBeLessThanOrEqual((ceilingOn(once, kit, USUAL_PROFILE).bpm ?? Infinity) + 1e-9);
        expect(both).toBeGreaterThanOrEqual(Math.min(loop, ceilingOn(once, kit, USUAL_PROFILE).bpm ?? Infinity) - 1e-9);
      }),
      { numRuns: 200 },
    );
  });

  it('is left alone by what follows, and falls away, said, where the phrase no longer begins on the 1', () => {
    fc.assert(
      fc.property(anyMove, (move) => {
        const recipe = phrase('4/4', 1260, 'L K', '(R l)x8');
        const before = build(recipe).pattern.pickup;
        const { pattern, trail } = build({ ...recipe, moves: [...recipe.moves, { ...move, id: 'x' }] });
        if (move.move === 'pickup') return;
        if (pattern.start > 0) {
          expect(pattern.pickup).toBeUndefined();
          expect(trail.at(-1)?.findings.map((f) => f.code)).toContain('pickup');
        } else if (move.move === 'mirror' && move.on) {
          // Its hands are those of the rest.
          const swapped = before
            ?.map((s) => s.limb)
            .map((l) => (l === 'K' && !move.params.feet ? 'K' : l === 'K' ? 'J' : 'R'));
          expect(pattern.pickup?.map((s) => s.limb)).toEqual(swapped);
        } else expect(pattern.pickup).toEqual(before);
      }),
      { numRuns: 600 },
    );
  });

  it('is refused in words where it cannot be', () => {
    const said = (text: string, ...before: Recipe['moves']): string =>
      build({ ...phrase('3/4', 1260, text), moves: [...before, lead(text)] }).trail.at(-1)?.findings[0]?.words ?? '';
    expect(said('(R)x13')).toBe('13 slots before the 1 are more than a bar. At most 12 fit.');
    expect(said('R ?')).toContain('?');
    const on2: Recipe['moves'][number] = {
      id: 'f',
      on: true,
      move: 'fit',
      params: { space: { bars: 1 }, start: '2', mirrored: false, close: { kind: 'cut' } },
    };
    expect(said('R', on2)).toBe('It begins on beat 2: a pick-up leads to the 1.');
  });

  it('leads into the whole and into the phrase in time, and into no other stage', () => {
    const { pattern } = build(phrase('4/4', 1260, 'L K', '(R l)x8'));
    for (const kind of STAGE_KINDS) {
      const stage = { id: 's', kind, short: false, bars: 1, from: 0, until: 5040 };
      const played = stagePattern(stage, pattern);
      expect([kind, played.pickup?.length ?? 0]).toEqual([kind, kind === 'whole' ? 2 : 0]);
      if (kind !== 'context') continue;
      const there = played.strokes.filter((s) => s.from.move === 'p').map((s) => [s.at, s.limb]);
      expect(there).toEqual([
        [20160 - 2 * 1260, 'L'],
        [20160 - 1260, 'K'],
      ]);
      // Nothing else is played while it leads in.
      expect(played.strokes.filter((s) => s.at >= 20160 - 2 * 1260 && s.at < 20160)).toHaveLength(2);
    }
  });

  it('goes where the kit has its voices', () => {
    const { pattern } = build(phrase('4/4', 1260, 'R[china] K'));
    const three = KIT_PRESETS.find((k) => k.id === 'three') ?? USUAL_KIT;
    const sounding = rendition({ phrase: pattern, kit: three });
    expect(sounding.pattern.pickup?.map((s) => s.voice)).not.toContain('china');
    expect(sounding.findings.map((f) => f.words).join()).toContain('china');
    expect(rendition({ phrase: pattern, mute: { limbs: ['K'], roles: [] } }).pattern.pickup).toHaveLength(1);
  });
});
