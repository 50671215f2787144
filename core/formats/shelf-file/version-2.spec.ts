// A shelf as the build before findings and stages were facts wrote it: a drill of each of four phrases, with every kind
// of stage and of sentence. Nothing keeps the words of stages: each is found again, and called what it is called today.
// A sentence of which only the words were kept is said as it was.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fixKindOf, isStuck, ofWhole, stageTitle, stageWhy, type Attempt, type FixKind } from '../../drill';
import { build, type Phrase } from '../../recipe';
import { findingWords } from '../../take';
import { readShelf, writeShelf } from '.';

interface Then {
  readonly phrases: readonly Phrase[];
  readonly attempts: readonly { id: string; stage: string; measured: { fix: string } }[];
  readonly drills: readonly {
    id: string;
    phrase: string;
    plan: { stages: readonly { id: string; title: string; why: string }[] };
  }[];
  readonly takes: readonly { id: string; stage: { title: string }; meant: { stage: { title: string } } }[];
}
const TEXT = readFileSync(join(__dirname, '../../testing/shelves/version-2.json'), 'utf8');
const THEN = JSON.parse(TEXT) as Then;

/** Stages that are called otherwise today. */
const CALLED: Readonly<Record<string, string>> = {
  'Bare sticking, one surface': 'Sticking only, one surface',
  'All voices, no accents': 'On the kit, no accents',
  'With the record': 'With the recording',
  'Play freely': 'Free play',
  'The tight spot': 'The hard spot',
};
const today = (title: string): string =>
  CALLED[title] ??
  title
    .replace(/ of time, then/, ' of groove, then')
    .replace(/^Only what (bar \d+) does otherwise$/, 'Only what differs in $1');

/** What each sentence was about, as a person tells it. */
const KINDS: Readonly<Record<string, FixKind | null>> = {
  'Nothing was heard. Check what listens, and its latency.': 'silence',
  'Only the second half of the loop is played.': 'part',
  'Only part of the loop is played: nothing from the & of 3 on.': 'part',
  'It begins a beat late and stays so.': 'late',
  'It stops after 2 loops.': 'part',
  'The tempo is steady, but 3 % slower than the click.': 'tempo',
  'All of it lies 41 ms behind the click.': 'late',
  'It is played as eighths swung 62 %, where straight ones are meant.': 'swing',
  'The left hand drags 33 ms, as in 16ths swung 58 %, where straight ones are meant.': 'swing',
  'The strokes off the beat drag 18 ms.': 'late',
  'The kick on the a of 4 is left out 3 times.': 'left-out',
  'The flam on 1 is played without its grace stroke 4 times.': 'ornament',
  '2 strokes too many.': 'extra',
  'The left hand drags 25 ms.': 'late',
  'The hi-hat foot on the 2 hurries 22 ms.': 'late',
  'The kick on bar 2, the 3 drags 31 ms.': 'late',
  'The right hand on the e of 3 drags 19 ms.': 'late',
  'It falls back by 55 ms a minute.': 'tempo',
  'Uneven: strokes scatter by 21 ms.': 'uneven',
  'The left hand is softer than the other.': 'heights',
  'Heights too alike: loud strokes are 1.2 times as loud as soft ones, 2.4 are meant.': 'heights',
  'Quite another sentence.': null,
};

function read() {
  const found = readShelf(TEXT);
  if (!found.ok) throw new Error(found.problems[0].message);
  return found.value.contents;
}
const said = ({ measured }: Attempt): string => (measured?.finding ? findingWords(measured.finding) : '');

describe('a shelf of version 2', () => {
  const now = read();
  it('has all of its rows', () =>
    expect([now.phrases.length, now.attempts.length, now.drills.length, now.takes.length]).toEqual(
      [THEN.phrases, THEN.attempts, THEN.drills, THEN.takes].map((list) => list.length),
    ));
  it('says of every try what it said: its stage and what there was to fix', () => {
    expect(now.attempts.map((a) => [a.id, a.drilled && stageTitle(a.drilled), said(a)])).toEqual(
      THEN.attempts.map((a) => [a.id, today(a.stage), a.measured.fix]),
    );
    expect(new Set(THEN.attempts.map((a) => a.stage)).size).toBeGreaterThan(20);
  });
  it('counts every fix under the kind that a person tells from its sentence', () => {
    for (const a of now.attempts)
      if (a.measured?.finding) expect([said(a), fixKindOf(a.measured.finding)]).toEqual([said(a), KINDS[said(a)]]);
    expect(new Set(now.attempts.map(said)).size).toBe(Object.keys(KINDS).length + 1);
  });
  it('knows which tries were of the whole', () =>
    expect(now.attempts.filter(ofWhole).map((a) => a.id)).toEqual(
      THEN.attempts.filter((a) => a.stage === 'The whole phrase').map((a) => a.id),
    ));
  it('has the stages of its drills by the names of today, each with a reason', () => {
    for (const [i, drill] of now.drills.entries()) {
      const phrase = now.phrases.find((p) => p.id === drill.phrase);
      if (!phrase) throw new Error(drill.phrase);
      const { pattern } = build(phrase.recipe);
      const words = (drill.plan.stages ?? []).map((s) => [s.id, stageTitle(s)]);
      expect(words).toEqual(THEN.drills[i]?.plan.stages.map((s) => [s.id, today(s.title)]));
      for (const s of drill.plan.stages ?? []) expect(stageWhy(s, pattern)).toMatch(/^\p{Lu}.+\.$/u);
    }
  });
  it('knows of each try of a drill under way in which stage it was', () => {
    const [drill] = now.drills;
    const titles = new Map(THEN.drills[0]?.plan.stages.map((s) => [s.id, s.title]));
    expect(drill?.attempts.map((a) => titles.get(a.drilled?.id ?? ''))).toEqual(
      THEN.attempts.filter((a) => drill?.attempts.some((o) => o.id === a.id)).map((a) => a.stage),
    );
    if (!drill) throw new Error('no drill');
    const last = drill.attempts.at(-1);
    const again = Array.from({ length: 3 }, (_, i): Attempt => ({ ...last!, id: `again-${i}` }));
    const at = (drill.plan.stages ?? []).findIndex((s) => s.id === last?.drilled?.id);
    const rung = drill.rungs.indexOf(last?.bpm ?? 0);
    expect(isStuck({ ...drill, stage: at, rung: Math.max(0, rung), attempts: again })).toBe(true);
  });
  it('has what its takes were held against', () =>
    expect(
      now.takes.map((t) => [t.id, t.stage && stageTitle(t.stage), t.meant?.stage && stageTitle(t.meant.stage)]),
    ).toEqual(THEN.takes.map((t) => [t.id, today(t.stage.title), today(t.meant.stage.title)])));
  it('keeps no title of a stage, and is the same when it is written and read again', () => {
    const text = writeShelf(now);
    // But the one name that a player gave a part, of which the tries of then kept nothing else.
    expect(new Set(text.match(/"title":"[^"]*"/g))).toEqual(new Set(['"title":"The fast end"']));
    const again = readShelf(text);
    expect(again.ok && writeShelf(again.value.contents)).toBe(text);
  });
});
