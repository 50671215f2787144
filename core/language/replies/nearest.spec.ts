import { voicedText } from '../../pattern';
import { build } from '../../recipe';
import { nearestTo } from './nearest';
import { readLine } from './read';

const on = (text: string) => build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] });
const phrase = on('R! l l R L r r L');
const lines = (said: string): readonly string[] => nearestTo(said, phrase).lines.map((n) => n.line);

describe('what is near a line that is not understood', () => {
  it.each<[string, string, string]>([
    ['accent the purple rights', 'purple', 'accent the rights'],
    ['lefts to the high tom with feeling', 'with feeling', 'lefts to the high tom'],
    ['ghost the lefts gloriously', 'gloriously', 'ghost the lefts'],
    ['rights to the hat, flibber the lefts', 'flibber', 'rights to the hat, the lefts'],
  ])('“%s”: “%s” stands in the way of “%s”', (said, blamed, line) => {
    const near = nearestTo(said, phrase);
    expect(readLine(said, phrase).kind).toBe('not');
    expect(near.diagnostics[0]?.words ?? '').toContain(blamed.split(' ').at(-1));
    if (!line.includes(', the')) expect(near.lines[0]?.line).toBe(line);
  });
  it('words nobody knows are left out together', () => {
    expect(lines('rights to the hat and purple lefts to the floor tom gloriously')[0]).toBe(
      'rights to the hat and lefts to the floor tom',
    );
  });
  it('an unknown verb: what can be done to what was named', () => {
    expect(lines('flibber the rights')).toEqual(expect.arrayContaining(['accent the rights', 'ghost the rights']));
  });
  it('a piece without strokes: the strokes there are', () => {
    expect(lines('zing to the high tom')).toContain('the rights to the high tom');
  });
  it('each line that is offered means one thing for this phrase, and is drawn as it would be', () => {
    for (const said of [
      'accent the purple rights',
      'flibber the lefts',
      'rights blah blah tom',
      'kick zing',
      'later by',
    ]) {
      const near = nearestTo(said, phrase);
      expect(near.lines.length).toBeLessThanOrEqual(3);
      expect(new Set(near.lines.map((n) => n.meant.words)).size).toBe(near.lines.length);
      for (const { line, meant } of near.lines) {
        const read = readLine(line, phrase);
        expect([line, read.kind === 'meant' && read.all.map((m) => voicedText(m.pattern)?.text)]).toEqual([
          line,
          [voicedText(meant.pattern)?.text],
        ]);
      }
    }
  });
  it('where no word is known, nothing is near; no line is offered twice, whatever the phrase', () => {
    expect(nearestTo('qwerty uiop', phrase)).toEqual({ diagnostics: [], lines: [] });
    expect(nearestTo('x'.repeat(500), phrase).lines).toEqual([]);
    expect(nearestTo('accent the purple rights', on('K K')).lines.map((n) => n.line)).not.toContain(
      'accent the rights',
    );
  });
});
