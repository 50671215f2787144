import { GRID, meter, USUAL_SCHOOLS as SCHOOLS } from '@core/time';
import { patternOfText } from '@core/pattern';
import { parseStrokeText } from '@core/stroke';
import { chosenWords, placeWords } from './cursor-words';

function pattern(text: string) {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return patternOfText(read.value, meter(4, 4), GRID.sixteenths);
}

describe('what stands under the cursor, in words', () => {
  const phrase = pattern('R! l fR - R+K R L K R L K R L K R L');
  it('names bar, count, limb, height and voice', () => {
    expect(placeWords(phrase, 0, SCHOOLS)).toBe('beat 1 in bar 1, right hand, accent, snare');
    expect(placeWords(phrase, GRID.sixteenths, SCHOOLS)).toBe('the e of 1 in bar 1, left hand, ghost, snare');
  });
  it('names an ornament, a rest, strokes together, and the end', () => {
    expect(placeWords(phrase, 2 * GRID.sixteenths, SCHOOLS)).toBe('the & of 1 in bar 1, right hand, flam, tap, snare');
    expect(placeWords(phrase, 3 * GRID.sixteenths, SCHOOLS)).toBe('the a of 1 in bar 1, rest');
    expect(placeWords(phrase, 4 * GRID.sixteenths, SCHOOLS)).toBe(
      'beat 2 in bar 1, right hand, tap, snare; and kick foot, tap, kick',
    );
    expect(placeWords(phrase, phrase.length, SCHOOLS)).toMatch(/^the end/);
  });
  it('counts what is chosen, with the words it was chosen by', () => {
    expect(chosenWords(1, null, phrase)).toBe('1 stroke chosen');
    expect(chosenWords(0, null, phrase)).toBe('0 strokes chosen');
    expect(chosenWords(3, { is: 'height', levels: ['accent'] }, phrase)).toMatch(/^3 strokes chosen: .*accent/);
  });
});
