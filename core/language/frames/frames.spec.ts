// Sentences that stand in no list the grammar was written against: each was scored before it was mended.
import { voicedText } from '../../pattern';
import { build } from '../../recipe';
import { readLine } from '../replies/read';

const PHRASE = 'R l l R l l R K R l R l R L R K';
const meanings = (line: string, text = PHRASE): readonly string[] => {
  const built = build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] });
  const r = readLine(line, built);
  return r.kind === 'meant' ? r.all.map((m) => voicedText(m.pattern)?.text ?? '') : [];
};

describe('roles in any order, acts unsaid', () => {
  it.each<[line: string, text: string, ...made: string[]]>([
    ['stick the lefts on the high tom', 'R l R l', 'R l[high tom] R l[high tom]'],
    ['floor tom gets the last right', 'R l R l', 'R l R[floor tom] l'],
    ['I want the rights on the ride', 'R l R l', 'R[ride] l R[ride] l'],
    ['back to the snare with the lefts', 'R l[ride] R l[ride]', 'R l R l'],
    ['the first note should be a crash with a kick', 'R l R l', 'R[right crash]+K l R l'],
    ['let the left hand play the high tom and the right the ride', 'R l', 'R[ride] l[high tom]'],
    ['on 1 use the crash', 'R l R l', 'R[right crash] l R l'],
    ['really dig into the rights', 'R l R l', 'R! l R! l'],
    ['bring the lefts up', 'R l R l', 'R L! R L!'],
    ['tone down the rights', 'R l R l', 'r l r l'],
    ['the rights nice and quiet', 'R l R l', 'r l r l'],
    ['rights at ghost level', 'R l R l', 'r l r l'],
    ['give me a drag on the second right', 'R l R l', 'R l dR l'],
    ['get rid of the kick', 'R l K l', 'R l - l'],
    ['tag a kick on the end', 'R l', 'R l K'],
    ['shift everything over by one', 'R l K l', 'l R l K'],
    ['shift only the kicks by a sixteenth', 'K - R - K - R -', '- K R - - K R -'],
    ['move the accents one sixteenth later', 'R! L R L', 'R L! R L'],
    ['accents in a 3-3-2', 'R L R L R L R L', 'R! L R L! R L R! L'],
    ['group the accents 3 3 2', 'R! L! R L R L R L', 'R! L R L! R L R! L'],
    ['stick it RLL RLL RL', 'R L R L R L R L', 'R L L R L L R L'],
    ['alternate the hands strictly, left first', 'R R L L', 'L R L R'],
    ['paradiddle sticking please', 'R L R L R L R L', 'R L R R L R L L'],
    ['keep nothing but the accents', 'R! L K R! L K', 'R! - - R! - -'],
    ['slip a kick in after each double', 'R R L L', 'R R K L L K'],
    ['fill the gaps with kicks', 'R - L -', 'R K L K'],
    ['chop it down to the first three notes', 'R L R L R', 'R L R'],
    ['kick and snare trade places', 'K L K L', 'L K L K'],
    ['swap the snare and the high tom', 'R L[high tom] R L', 'R[high tom] L R[high tom] L[high tom]'],
    ['accent where the kick is', 'R+K L R L', 'R!+K! L R L'],
    ['floor tom for the last two, and accent the first of those', 'R L R L', 'R L R![floor tom] L[floor tom]'],
    ['accent the first of each three', 'R L R L R L', 'R! L R L! R L'],
    ['K K behind it so it becomes a four', 'R L', 'R L K K'],
    ['kik on evry quater under it', 'R L R L R L R L', 'R+K L R L R+K L R L'],
    ['the last time on the floor tom', 'R L', 'R[floor tom] L[floor tom]'],
  ])('“%s” on %s', (line, text, ...made) => expect(meanings(line, text)).toEqual(made));

  it.each<[string, string, number]>([
    ['delete the last note', 'R L R L', 2],
    ['move it back a sixteenth', 'R l K L', 2],
    ['accents every 3', 'R - L R - L R L', 2],
    ['accent 1 & 3', 'R L R L R L R L R L R L', 2],
  ])('“%s” on %s is asked', (line, text, many) => expect(meanings(line, text)).toHaveLength(many));

  it.each([
    ['right hand follows the kick', 'R L R L'],
    ['stick it RLL RLL RL', 'R L R'],
    ['keep nothing but the accents', 'R L R L'],
    ['bars 1 and 2 trade places', 'R L R L'],
    ['all the as to the floor tom', 'R L R K'],
    ['the rights to the', 'R L R L'],
  ])('“%s” on %s is refused', (line, text) => expect(meanings(line, text)).toEqual([]));
});
