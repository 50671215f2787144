import { GRID, meter } from '@core/time';
import { parseStrokeText, VOICE, VOICES } from '@core/stroke';
import { patternOfText } from '@core/pattern';
import { scoreOf } from '@core/score';
import { leastWidth, staffLines } from './lines';
import { hatSign } from './notation';

const score = (bars: number) => {
  const read = parseStrokeText(`(${'R L '.repeat(8)})x${bars}`);
  return scoreOf(patternOfText(read.ok ? read.value : [], meter(4, 4), GRID.sixteenths));
};

describe('lines of a staff', () => {
  it('every bar stands once, in order, and no line is wider than the paper', () => {
    for (const width of [300, 620, 1100]) {
      const lines = staffLines(score(13), width, []);
      expect(lines.flatMap((l) => l.bars.map((b) => b.bar.number))).toEqual(
        Array.from({ length: 13 }, (_, i) => i + 1),
      );
      for (const line of lines)
        if (line.bars.length > 1) expect(line.bars.reduce((sum, b) => sum + b.width, 0)).toBeLessThanOrEqual(width + 1);
    }
  });
  it('a bar that is too wide stands alone', () => {
    const one = score(3);
    expect(staffLines(one, 120, [])).toHaveLength(3);
    expect(leastWidth(one.bars[0]!, [])).toBeGreaterThan(120);
  });
});

describe('signs', () => {
  it('every voice has a place on the staff, no two skins the same', () => {
    const skins = ['snare', 'high-tom', 'mid-tom', 'floor-tom', 'kick'] as const;
    for (const voice of VOICES) expect(VOICE[voice].staff).toMatch(/^[a-g]\/\d(\/\w+)?$/);
    expect(new Set(skins.map((v) => VOICE[v].staff)).size).toBe(skins.length);
  });
  it('an open hi-hat has a ring, and the one that closes it a plus', () => {
    expect(hatSign('hat-open', false)).toBe('ah');
    expect(hatSign('hat-closed', true)).toBe('a+');
    expect(hatSign('hat-closed', false)).toBeNull();
    expect(hatSign('snare', true)).toBeNull();
  });
});
