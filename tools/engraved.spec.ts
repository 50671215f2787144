import { execFileSync } from 'node:child_process';
import { musicXmlOf } from '@core/formats/musicxml';
import { build, type Recipe } from '@core/recipe';
import { scoreOf } from '@core/score';
import { graceCount, isHand } from '@core/stroke';

const typed = (text: string, meter: string, grid: number): Recipe => ({
  source: { kind: 'typed', text, meter, grid },
  moves: [],
});

it('an engraver that is not ours draws what we write: notes, stickings, ghosts, accents, tuplets and graces counted', () => {
  const recipes = [
    typed('fR l dL! R R! tR l L', '4/4', 1260),
    typed('(R! l l)x4', '4/4', 1680),
    typed('(R l K)x4 fL R+K', '6/8', 840),
    typed('R! L l R[ride] K+R L', '7/8', 1260),
    typed('(R l R l L)x4', '5/4', 1008),
  ];
  const scores = recipes.map(
    (recipe) => musicXmlOf({ name: 'Rope', family: 'fill', recipe, tempo: 90, goal: 104, note: '' }).xml,
  );
  const drawn = JSON.parse(
    execFileSync('node', ['tools/engrave.mjs'], { input: JSON.stringify(scores), encoding: 'utf8' }),
  ) as Record<string, unknown>[];
  recipes.forEach((recipe, i) => {
    const { pattern } = build(recipe);
    const score = scoreOf(pattern);
    const graces = pattern.strokes.reduce((n, s) => n + (s.ornament ? graceCount(s.ornament) : 0), 0);
    expect([i, drawn[i]]).toEqual([
      i,
      {
        loaded: true,
        log: '',
        notes: pattern.strokes.length + graces,
        graces,
        ghosts: pattern.strokes.filter((s) => s.level === 'ghost').length,
        tuplets: score.bars.reduce((n, b) => n + b.hands.tuplets.length + (b.feet?.tuplets.length ?? 0), 0),
        accents: pattern.strokes.filter((s) => s.level === 'accent').length,
        stickings: pattern.strokes.filter((s) => isHand(s.limb)).length,
      },
    ]);
  });
});
