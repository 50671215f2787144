// Sentences that stand in no list the grammar was written against: each was scored before it was mended.
import { readFileSync } from 'node:fs';
import { voicedText } from '../../pattern';
import { build } from '../../recipe';
import { readLine } from '../replies/read';

const PHRASE = 'R l l R l l R K R l R l R L R K';
const meanings = (line: string, text = PHRASE): readonly string[] => {
  const built = build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] });
  const r = readLine(line, built);
  return r.kind === 'meant' ? r.all.map((m) => voicedText(m.pattern)?.text ?? '') : [];
};

/** Sentences with every phrase each can mean, or none where it is refused; read through one by one. */
const HEARD = readFileSync('core/testing/words-heard.jsonl', 'utf8')
  .trim()
  .split('\n')
  .map((line) => JSON.parse(line) as readonly [text: string, line: string, ...made: string[]]);

describe('sentences that were heard once', () => {
  it.each(HEARD.map(([text, line, ...made]): [string, string, readonly string[]] => [line, text, made]))(
    '“%s” on %s',
    (line, text, made) => {
      const built = build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [] });
      const r = readLine(line, built);
      const shown = (r.kind === 'meant' ? r.all : []).map(({ pattern: p }) => {
        const v = voicedText(p);
        return `${p.start ? `@${p.start} ` : ''}${v?.text ?? ''} on ${v?.on ?? ''}`;
      });
      expect(shown).toEqual(made);
    },
  );
});

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
    ['lefts: hat. rights: ride bell', 'R L R L', 'R[ride bell] L[closed hi-hat] R[ride bell] L[closed hi-hat]'],
    ['accent the lefts, then the last right', 'R L R L R L', 'R L! R L! R! L!'],
    ['rights to the ride, the last left as well', 'R L R L', 'R[ride] L R[ride] L[ride]'],
    ['send the lefts to the high tom, ghosted', 'R L R L', 'R l[high tom] R l[high tom]'],
    ['accent the lefts and flam', 'R L R L', 'R fL! R fL!'],
    ['leave the first note alone and accent the rest', 'R L R L', 'R L! R! L!'],
    ['beat 1 goes high mid low low', 'R L R L', 'R[high tom] L[mid tom] R[floor tom] L[floor tom]'],
    ['snare snare high floor', 'R L R L', 'R L R[high tom] L[floor tom]'],
    ['high tom, mid tom, two each', 'R L R L', 'R[high tom] L[high tom] R[mid tom] L[mid tom]'],
    ['accent the note before each kick', 'R L K R L R K R', 'R L! K R L R! K R'],
    ['accents where the kick isn’t', 'R L K R', 'R! L! K R!'],
    ['flip the sticking of beat 1', 'R L R L R L', 'L R L R R L'],
    ['hands: RLLR', 'R L R L', 'R L L R'],
    ['doubles in beat 1', 'R L R L R L', 'R R L L R L'],
    ['beat 1 all rights', 'R L R L R L', 'R R R R R L'],
    ['1 and 1& kick', 'K R L R', 'K R L+K R', 'K R K R'],
    ['kick: 1 1&', 'R L R L', 'R+K L R+K L', 'K L K L'],
    ['tack two kicks on', 'R L', 'R L K K'],
    ['put a kick after each group', 'R L L', 'R L L K'],
    ['put an extra right at the end', 'R L', 'R L R'],
    ['begin on the second note', 'R L L', 'L L R'],
    ['rotate it so that what is on 1e comes on 1', 'R L L', 'L L R'],
    ['beat 2 same as beat 1', 'R L K L R L R L', 'R L K L R L K L'],
    ['repeat beat 1 on beat 2 with the hands swapped', 'R L K L R L R L', 'R L K L L R K R'],
    ['fill 2 beats, finish with singles', 'R L K', 'R L K R L K R L'],
    ['over 1 beat, cut the excess', 'R L K L R', 'R L K L'],
    ['start with a flam', 'R L', 'fR L'],
    ['ornament 1 and 1& with drags', 'R L R L', 'dR L dR L'],
    ['leave a gap on 1e', 'R L R', 'R - R'],
    ['beat 1 hands together', 'R L', 'R+L L', 'R+L R+L'],
    ['unaccent the lefts', 'R! L! r L!', 'R! L r L'],
    ['no dynamics', 'R! l R L!', 'R L R L'],
    ['RH hat / LH snare', 'R L[high tom]', 'R[closed hi-hat] L'],
    ['K on 1', 'R L', 'R+K L', 'K L'],
    ['crash 1 w/ kick', 'R L', 'R[right crash]+K L'],
    ['add kick on all four', 'R L R L R L R L R L R L R L R L', 'R+K L R L R+K L R L R+K L R L R+K L R L'],
    ['accents to the mid tom and the floor tom in turn', 'R! l R! l', 'R![mid tom] l R![floor tom] l'],
    [
      'the rights visit high, mid and floor tom one after the other',
      'R l R l R',
      'R[high tom] l R[mid tom] l R[floor tom]',
    ],
    ['snare, high tom in 2 and 3', 'R L R L R', 'R L R[high tom] L[high tom] R[high tom]'],
    ['round the kit in pairs', 'R L R L', 'R L R[high tom] L[high tom]'],
    ['drags to flams', 'fR L dR L', 'fR L fR L'],
    ['move the accents to the offbeats', 'R! L R L', 'R L R! L'],
    ['put the first half on the ride and the second on the floor tom', 'R L', 'R[ride] L[floor tom]'],
    ['copy the first beat onto the second', 'R L K L R L R L', 'R L K L R L K L'],
    ['shorten it to the first three strokes', 'R L L R L', 'R L L'],
    ['swap the drag for a flam', 'R dL', 'R fL'],
    ['no grace notes on 1', 'fR fL', 'R fL'],
    [
      'crash and kick on the next downbeat',
      'R L R L R L R L R L R L R L R L',
      'R L R L R L R L R L R L R L R L R![right crash]+K! - - - - - - - - - - - - - - -',
    ],
    ['the two rights on the ride', 'R L R L', 'R[ride] L R[ride] L'],
    ['add a beat of rest', 'R L', 'R L - - - -'],
    ['first stroke gets a kick', 'R L', 'R+K L'],
    ['lefts on the ride – no, the bell', 'R L', 'R L[ride bell]'],
    ['everything except the last to the ride', 'R L R', 'R[ride] L[ride] R'],
    ['replace the unaccented with rests', 'R! L r', 'R! - -'],
    ['fill out the bar with kicks', 'R L R L R L R L R L R L R', 'R L R L R L R L R L R L R K K K'],
    ['start over from 1e', 'R L L R', 'R R L L'],
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
    ['the two rights to the ride', 'R L R L R'],
    ['end with it', 'R L R L'],
    ['play that three times then two kicks', 'R L K'],
    ['unaccent the lefts', 'R! L R L'],
    ['accent the rights but keep them ghosted', 'R L R L'],
  ])('“%s” on %s is refused', (line, text) => expect(meanings(line, text)).toEqual([]));
});
