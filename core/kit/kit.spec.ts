import fc from 'fast-check';
import { chooses } from '../selection';
import { anyRecipe } from '../testing/arbitraries';
import { LIMBS, PIECE_KINDS, VOICE, VOICES, voicesNamed } from '../stroke';
import { build } from '../recipe';
import {
  checkKit,
  handVoicesOn,
  isPad,
  KIND_VOICES,
  KIT_PRESETS,
  hasLimb,
  mirroredKit,
  newPiece,
  pieceFor,
  revoice,
  strikingPoint,
  targetWidth,
  ownNames,
  saidOn,
  voiceNameOn,
  voiceOn,
  type Kit,
} from '.';

const preset = (id: string) => KIT_PRESETS.find((k) => k.id === id)!;
const toms = build({
  source: { kind: 'typed', text: 'R L R L R L', meter: '4/4', grid: 1260 },
  moves: [
    {
      id: 'r',
      on: true,
      move: 'route',
      params: {
        select: chooses({}),
        stations: (['high-tom', 'mid-tom', 'floor-tom'] as const).map((v) => ({ right: v, left: v })),
        order: [],
        sizes: [2],
      },
    },
  ],
}).pattern;

describe('kits', () => {
  it('presets have their own ids and names, and no fault', () => {
    expect(new Set(KIT_PRESETS.map((k) => k.id)).size).toBe(KIT_PRESETS.length);
    expect(new Set(KIT_PRESETS.map((k) => k.name)).size).toBe(KIT_PRESETS.length);
    for (const kit of KIT_PRESETS) expect([kit.name, checkKit(kit)]).toEqual([kit.name, []]);
  });
  it('tables name every voice and never a substitute twice', () => {
    for (const v of VOICES) {
      const { substitutes } = VOICE[v];
      expect(voicesNamed(substitutes)).toEqual(substitutes);
      expect(substitutes).not.toContain(v);
    }
    expect(new Set(PIECE_KINDS.flatMap((k) => KIND_VOICES[k])).size).toBe(VOICES.length);
  });
  it('mirrored twice is itself, and once changes sides', () => {
    for (const kit of KIT_PRESETS) {
      expect(mirroredKit(mirroredKit(kit))).toEqual(kit);
      expect(mirroredKit(kit).feet.K).toBe('left foot');
    }
  });
  it('a kit without drums, without pieces, or with pieces on top of each other is told so in words', () => {
    const five = preset('five');
    expect(checkKit({ ...five, pieces: [] })[0]?.words).toContain('The kit is empty');
    expect(checkKit({ ...five, pieces: five.pieces.filter((p) => p.kind === 'ride') })[0]?.words).toContain('no drum');
    const [snare] = five.pieces;
    const doubled = { ...five, pieces: [...five.pieces, { ...snare!, id: 'again', name: 'Again' }] };
    expect(checkKit(doubled).map((f) => f.words)).toContain('Snare and Again are on top of each other. Move one.');
  });
  it('points and widths are finite wherever a piece stands, on the drummer too', () => {
    for (const v of VOICES) {
      const p = strikingPoint({ ...preset('five').pieces[0]!, x: 0, y: 0 }, v);
      expect([p.x, p.y, p.z].every(Number.isFinite)).toBe(true);
      expect(targetWidth(preset('five').pieces[0]!, v)).toBeGreaterThan(0);
    }
  });
  it('a crash is struck at the edge that faces the drummer, and turning it moves that edge', () => {
    const crash = preset('five').pieces.find((p) => p.id === 'crash-right')!;
    const at = strikingPoint(crash, 'crash-right');
    expect(Math.hypot(at.x, at.y)).toBeLessThan(Math.hypot(crash.x, crash.y));
    expect(strikingPoint({ ...crash, turn: 90 }, 'crash-right').x).not.toBeCloseTo(at.x, 1);
  });
  it('a new piece has a free id and the voice that is missing', () => {
    const four = preset('four');
    expect(newPiece('tom', four.pieces)).toMatchObject({ id: 'tom', voices: ['mid-tom'] });
    const snares = [newPiece('snare', [])];
    expect(newPiece('snare', snares).id).toBe('snare-2');
  });
  it.each(PIECE_KINDS.filter((k) => VOICES.some((v) => VOICE[v].piece === k && VOICE[v].extra)))(
    'what is out of the ordinary, as %s, is offered and named only where the kit has it',
    (kind) => {
      const five = preset('five');
      const piece = { ...newPiece(kind, five.pieces), name: 'Bell of the pier', voices: [...KIND_VOICES[kind]] };
      const own = VOICES.filter((v) => VOICE[v].piece === kind && VOICE[v].extra);
      const more: Kit = { ...five, pieces: [...five.pieces, piece] };
      for (const v of own) {
        expect(handVoicesOn(five)).not.toContain(v);
        expect(handVoicesOn(more)).toContain(v);
        expect(voiceNameOn(more, v)).toBe(kind === 'own' ? 'Bell of the pier' : VOICE[v].name);
        // Elsewhere it is played on something there is.
        expect(five.pieces.some((p) => p.voices.includes(voiceOn(five, v) ?? 'kick'))).toBe(true);
      }
    },
  );
  it('sentences call pieces of one’s own by their names', () => {
    const five = preset('five');
    const more: Kit = {
      ...five,
      pieces: [
        ...five.pieces,
        { ...newPiece('own', five.pieces), name: 'Wash-board', voices: ['own-1'] },
        { ...newPiece('own', five.pieces), id: 'tin', name: 'Tin', voices: ['own-2'] },
      ],
    };
    expect(saidOn(more, 'Send lefts to the second own piece and the own piece')).toBe(
      'Send lefts to the Tin and the Wash-board',
    );
    expect(saidOn(five, 'Send lefts to the own piece')).toBe('Send lefts to the own piece');
    expect(ownNames(more).map((n) => n.voice)).toEqual(['own-1', 'own-2']);
  });
  it.each(['splash', 'china', 'cowbell', 'block', 'own'] as const)('a new %s stands on nothing else', (kind) => {
    const five = preset('five');
    const more: Kit = { ...five, pieces: [...five.pieces, newPiece(kind, five.pieces)] };
    expect(checkKit(more)).toEqual(checkKit(five));
  });
  it('the pad leaves the hands and nothing else', () => {
    expect(isPad(preset('pad'))).toBe(true);
    expect(LIMBS.filter((l) => hasLimb(preset('pad'), l))).toEqual(['R', 'L']);
    expect(LIMBS.filter((l) => hasLimb(preset('double'), l))).toEqual(['R', 'L', 'K', 'J', 'H']);
  });
});

describe('re-voicing', () => {
  it('a phrase with three toms on a kit of three drums, in words; the phrase stays what it was', () => {
    const before = JSON.stringify(toms);
    const { pattern, findings } = revoice(toms, preset('three'));
    expect(new Set(pattern.strokes.map((s) => s.voice))).toEqual(new Set(['floor-tom', 'snare']));
    expect(findings.map((f) => f.words)).toEqual([
      'No high tom on “Three drums”: both strokes go to the snare.',
      'No mid tom on “Three drums”: both strokes go to the floor tom.',
    ]);
    expect(JSON.stringify(toms)).toBe(before);
    expect(revoice(toms, preset('five'))).toEqual({ pattern: toms, findings: [] });
  });
  it('on a pad everything hands play is the pad, and feet are left out in words', () => {
    const groove = build({ source: { kind: 'typed', text: 'R+K L+H', meter: '4/4', grid: 2520 }, moves: [] }).pattern;
    const { pattern, findings } = revoice(groove, preset('pad'));
    expect(pattern.strokes.map((s) => s.limb)).toEqual(['R', 'L']);
    expect(findings).toHaveLength(2);
  });
  it('without a second pedal one foot plays both', () => {
    const kicks = build({ source: { kind: 'typed', text: 'K J K J', meter: '4/4', grid: 1260 }, moves: [] }).pattern;
    const { pattern, findings } = revoice(kicks, preset('five'));
    expect(pattern.strokes.map((s) => s.limb)).toEqual(['K', 'K', 'K', 'K']);
    expect(findings[0]?.words).toContain('one foot plays both kicks');
  });
  it('every kit sounds only what it has, and a kit that has all changes nothing, for any phrase', () => {
    fc.assert(
      fc.property(anyRecipe, fc.constantFrom(...KIT_PRESETS), (recipe, kit) => {
        const { pattern } = build({ ...recipe, moves: recipe.moves.slice(0, 4) });
        const { pattern: on, findings } = revoice(pattern, kit);
        for (const s of on.strokes)
          expect(pieceFor(kit, s.voice)?.voices ?? (isPad(kit) ? ['snare'] : [])).toContain(s.voice);
        if (findings.length === 0) expect(on).toBe(pattern);
      }),
      { numRuns: 200 },
    );
  });
  it('an empty kit sounds nothing', () =>
    expect(
      VOICES.filter((v) => VOICE[v].family !== 'foot').every(
        (v) => voiceOn({ ...preset('five'), pieces: [] }, v) === null,
      ),
    ).toBe(true));
});
