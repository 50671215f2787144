import { numberAt, word } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { FILLERS_BY_WORD, PARTICLES, VERBS_BY_WORD, type ActName } from '../lexicon/verbs';
import type { Values } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';
import { wrong, type RuleContext, type Said } from '../rules/rule';
import type { RoleName } from './role-names';
import { endOf, rolesAt, type RoleSaid } from './roles';

/** What a clause can mean by its act and the roles that are filled, in whatever order they stand. */
export interface Frame {
  readonly acts: readonly ActName[];
  /** The act may go unsaid: the roles imply it. */
  readonly unsaid: boolean;
  readonly needs: readonly RoleName[];
  readonly may: readonly RoleName[];
  /** Strokes that are not named again are those of the clause before. */
  readonly carries?: boolean;
  /** Meant before other frames that fit: time that goes on, rather than strokes one by one. */
  readonly isLikely?: boolean;
  readonly mean: (roles: Values, scene: RuleContext) => Said;
}

/** A clause as it was read: the frame, what fills its roles (under their names), and where it ends. */
export interface FrameSaid {
  readonly end: number;
  readonly frame: Frame;
  readonly values: Values;
  /** The act, or the strokes, are those of the clause before. */
  readonly isCarried: boolean;
}

/** So many ways to take a clause apart are looked at. */
const MOST = 400;
/** A clause has at most so many parts. */
const MOST_PARTS = 9;

interface State {
  readonly at: number;
  /** What the verbs can mean together; null while none said anything. */
  readonly acts: readonly ActName[] | null;
  readonly roles: readonly RoleSaid[];
  /** Verbs whose second word may still come. */
  readonly open: readonly string[];
  /** A verb that says nothing without its second word, which has not come yet. */
  readonly isPending: boolean;
  /** Those that what was said so far can belong to. */
  readonly frames: readonly Frame[];
  readonly parts: number;
}

/** What may be said of the strokes of any frame. */
const ASIDE: ReadonlySet<RoleName> = new Set<RoleName>(['scope', 'less', 'again']);
/** Words that leave out what stands before them. */
const BEHIND: ReadonlySet<string> = new Set(['out', 'gone', 'off']);
const PLACES = /^(?:bars?|beats?|the|every|each|all|\d.*)$/;

const ENDS = new Set([',', ';', ':', 'then', 'and', 'while', '.', 'but']);

/** Every way to read a clause from a place of the line on as verbs, roles and words that change nothing. */
export function framesAt(tokens: readonly Token[], start: number, frames: readonly Frame[]): readonly FrameSaid[] {
  const found: FrameSaid[] = [];
  const seen = new Map<Frame, Set<string>>();
  const ends = endingsOf(tokens);
  let looked = 0;
  const go = (s: State): void => {
    if (looked++ > MOST * 10 || found.length > MOST || !ends(s.at)) return;
    const over = s.at === tokens.length || ENDS.has(word(tokens, s.at));
    if (over && !s.isPending && (s.roles.length > 0 || s.acts !== null)) found.push(...fitting(s, seen));
    if (s.at >= tokens.length || s.parts >= MOST_PARTS) return;
    for (const next of steps(tokens, s, frames)) go(next);
  };
  go({ at: start, acts: null, roles: [], open: [], isPending: false, frames, parts: 0 });
  return found;
}

const knownEnds = new WeakMap<readonly Token[], (at: number) => boolean>();

/** Whether a clause that has come so far can be read to an end at all, whatever fills which role. */
function endingsOf(tokens: readonly Token[]): (at: number) => boolean {
  const before = knownEnds.get(tokens);
  if (before) return before;
  const known = new Map<number, boolean>();
  const ends = (at: number): boolean => {
    const own = known.get(at);
    if (own !== undefined) return own;
    known.set(at, false);
    const over = at >= tokens.length || ENDS.has(word(tokens, at));
    const found = over || stepsFrom(tokens, at).some(ends);
    known.set(at, found);
    return found;
  };
  knownEnds.set(tokens, ends);
  return ends;
}

/** Where one more part can lead from a place, nothing but the words considered. */
function stepsFrom(tokens: readonly Token[], at: number): readonly number[] {
  const w = word(tokens, at);
  const said = [...(VERBS_BY_WORD.get(w) ?? []), ...(FILLERS_BY_WORD.get(w) ?? [])];
  const aside = asideAt(tokens, at);
  const plain = PARTICLE_WORDS.has(w) || STEMS.has(w) || /^(?:,|:|all)$/.test(w) ? [at + 1] : [];
  return [
    ...plain,
    ...(aside === null ? [] : [aside]),
    ...said.flatMap(({ words }) => endOf(tokens, at, words) ?? []),
    ...rolesAt(tokens, at).map((r) => r.end),
  ];
}

/** The roles a frame takes, besides those that any takes. */
const takes = new WeakMap<Frame, ReadonlySet<RoleName>>();
function takesRole(frame: Frame, role: RoleName): boolean {
  let own = takes.get(frame);
  if (!own) takes.set(frame, (own = new Set([...frame.needs, ...frame.may, ...ASIDE])));
  return own.has(role);
}

/** Frames whose act one of these can be; all of them while no verb said anything. */
const withActs = (frames: readonly Frame[], acts: readonly ActName[] | null): readonly Frame[] =>
  acts === null ? frames : frames.filter((f) => f.acts.some((a) => acts.includes(a)));

function steps(tokens: readonly Token[], s: State, all: readonly Frame[]): readonly State[] {
  const w = word(tokens, s.at);
  const out: State[] = [];
  const parts = s.parts + 1;
  const stem = STEMS.get(w);
  for (const { words, acts } of VERBS_BY_WORD.get(w) ?? []) {
    const end = endOf(tokens, s.at, words);
    if (end === null) continue;
    const both = together(s.acts, acts);
    if (both === undefined || (BEHIND.has(w) && (s.roles.length === 0 || s.open.length > 0))) continue;
    const frames = both === s.acts ? s.frames : withActs(s.frames, both);
    if (frames.length > 0) out.push({ ...s, at: end, acts: both, open: [...s.open, stem ?? w], frames, parts });
  }
  for (const p of PARTICLES) {
    if (p.particle !== w || !s.open.includes(p.verb) || (w === 'in' && PLACES.test(word(tokens, s.at + 1)))) continue;
    const frames = withActs(all, p.acts).filter((f) => s.roles.every((r) => takesRole(f, r.role)));
    if (frames.length > 0) out.push({ ...s, at: s.at + 1, acts: p.acts, isPending: false, frames, parts });
  }
  for (const p of PARTICLES)
    if (stem === p.verb && s.acts === null && !s.open.includes(p.verb))
      out.push({ ...s, at: s.at + 1, open: [...s.open, p.verb], isPending: true, parts });
  // What is said behind a comma may belong to it, and so what is announced: "lefts: hat".
  if ((w === ',' || w === ':') && s.roles.length + (s.acts === null ? 0 : 1) > 0)
    out.push({ ...s, at: s.at + 1, parts });
  // "Bar 2 all on the floor tom", "the lefts all accented"
  if (w === 'all' && s.roles.at(-1)?.role === 'pick') out.push({ ...s, at: s.at + 1, parts });
  for (const { words } of FILLERS_BY_WORD.get(w) ?? []) {
    const end = endOf(tokens, s.at, words);
    if (end !== null) out.push({ ...s, at: end, parts });
  }
  const aside = asideAt(tokens, s.at);
  if (aside !== null) out.push({ ...s, at: aside, parts });
  for (const role of rolesAt(tokens, s.at)) {
    if (s.roles.some((r) => r.role === role.role)) continue;
    const frames = s.frames.filter((f) => takesRole(f, role.role));
    if (frames.length > 0) out.push({ ...s, at: role.end, roles: [...s.roles, role], frames, parts });
  }
  return out;
}

/** "So it becomes a seven", "so it runs over the bar line", "make it a five by": what follows from the rest. */
function asideAt(tokens: readonly Token[], at: number): number | null {
  const by = endOf(tokens, at, ['make', 'it', 'a']) ?? endOf(tokens, at, ['make', 'it']);
  if (by !== null && numberAt(tokens, by).length > 0 && word(tokens, by + 1) === 'by') return by + 2;
  const sum = endOf(tokens, at, ['to', 'make', 'it', 'a']) ?? endOf(tokens, at, ['to', 'make', 'it']);
  if (sum !== null && numberAt(tokens, sum).length > 0) return sum + 1;
  // "Make it five: …"
  if (by !== null && numberAt(tokens, by).length > 0 && /^[:,]$/.test(word(tokens, by + 1))) return by + 1;
  if (word(tokens, at) !== 'so') return null;
  let from = word(tokens, at + 1) === 'that' ? at + 2 : at + 1;
  if (!/^(?:it|that|this|they|we)$/.test(word(tokens, from))) return null;
  from++;
  if (
    !/^(?:becomes|is|makes|runs|goes|sounds|feels|turns|fits|gets|has|crosses|carries|spills|hangs)$/.test(
      word(tokens, from),
    )
  )
    return null;
  while (at < tokens.length && !ENDS.has(word(tokens, from)) && from < tokens.length) from++;
  return from;
}

/** Verbs that have a particle, by their forms: "brings", "bringing". */
const STEMS: ReadonlyMap<string, string> = new Map(
  PARTICLES.flatMap(({ verb }) => {
    const stem = verb.endsWith('e') ? verb.slice(0, -1) : verb;
    return [verb, `${verb}s`, `${verb}es`, `${stem}ing`].map((w): [string, string] => [w, verb]);
  }),
);
const PARTICLE_WORDS: ReadonlySet<string> = new Set(PARTICLES.map((p) => p.particle));

/** What two verbs can mean together; undefined where they say different things. */
function together(a: readonly ActName[] | null, b: readonly ActName[] | null): readonly ActName[] | null | undefined {
  if (a === null) return b;
  if (b === null) return a;
  const both = a.filter((x) => b.includes(x));
  return both.length > 0 ? both : undefined;
}

/** Strokes with where they are, said apart from them; null where that was said already. */
function scoped(pick: Pick | undefined, scope: Partial<Pick>): Pick | null {
  if (!pick) return null;
  return Object.keys(scope).some((k) => pick[k as keyof Pick] !== undefined) ? null : { ...pick, ...scope };
}

function fitting(s: State, seen: Map<Frame, Set<string>>): readonly FrameSaid[] {
  const said = (role: RoleName): boolean => s.roles.some((r) => r.role === role);
  // "A flam" is a new one, whatever is said of it but that it goes.
  const isNew = s.roles.some((r) => r.role === 'pick' && isNewGrace(r.value as Pick));
  if (isNew && !s.acts?.some((a) => GOES.has(a))) return [];
  const all = s.acts === null && s.roles.length === 1 && said('pick') ? [...s.frames, CARRIED_ACT] : s.frames;
  return all.flatMap((frame): FrameSaid[] => {
    if (s.acts === null && !frame.unsaid) return [];
    const carried = frame.carries === true && !said('pick') && !said('scope');
    if (!frame.needs.every((n) => said(n) || (n === 'pick' && carried))) return [];
    const values: Record<string, unknown> = { by: {}, order: s.roles.map((r) => r.role) };
    if (carried) Object.assign(values, { pick: THEM, by: { pick: '' } });
    for (const r of s.roles) {
      values[r.role] = r.value;
      (values['by'] as Record<string, string>)[r.role] = r.by;
    }
    const own = values['pick'] as Pick | undefined;
    // "In beat 3" is all of it.
    if ((values['by'] as Record<string, string>)['pick'] === 'in' && own?.counts)
      values['pick'] = { ...own, counts: own.counts.map((c) => (c.as === 'beat' ? { ...c, as: 'whole' } : c)) };
    if (values['scope'] !== undefined) {
      const own = values['pick'] as Pick | undefined;
      // Where nothing but a place is said of what may be named, it is the place: "doubles in bar 2".
      const there: Pick | undefined = frame.may.includes('pick') ? { base: null, said: 'there' } : undefined;
      const pick = scoped(own ?? there, values['scope'] as Partial<Pick>);
      if (!pick) return [];
      values['pick'] = pick;
    }
    const less = values['less'] as Pick | undefined;
    if (less) {
      const pick = values['pick'] as Pick | undefined;
      if (!pick) return [];
      values['pick'] = { ...pick, except: [...(pick.except ?? []), less] };
    }
    const key = `${s.at} ${JSON.stringify(values)}`;
    const before = seen.get(frame) ?? new Set();
    if (before.has(key)) return [];
    seen.set(frame, before.add(key));
    return [{ end: s.at, frame, values, isCarried: carried || frame === CARRIED_ACT }];
  });
}

/** Strokes that were spoken of last, though no word says so: "the last two to the floor tom, accented". */
const THEM: Pick = { base: 'them', said: '' };

/** Strokes and nothing else: the same is done to them as was done before. "Rights to the ride, the last left too." */
const CARRIED_ACT: Frame = {
  acts: [],
  unsaid: true,
  needs: ['pick'],
  may: [],
  mean: (v, scene) => {
    const { last } = scene;
    const pick = v['pick'] as Pick;
    return last && isNoun(pick) ? last.mean({ ...last.values, pick }, scene) : wrong(pick.said, '');
  },
};

/** "Ghosted" and "a flam" say what is done, and name no strokes as "the ghosts" does. */
function isNoun({ levels, ornaments, limb, voices, counts, order, said }: Pick): boolean {
  // "With a kick and a left" names strokes that are not there yet.
  if (limb && /^an? /i.test(said)) return false;
  if ((levels ?? ornaments) === undefined || (limb ?? voices ?? counts ?? order) !== undefined) return true;
  return !/^an? /i.test(said) && /^(?:the|those|these|all|every|each|any) |s$/i.test(said);
}

const isNewGrace = ({ ornaments, said }: Pick): boolean =>
  ornaments !== undefined && /^(?:an? |(?:flam|drag|ruff|buzz)\b(?! (?:strokes?|notes?|hits?|ones?)\b))/i.test(said);
/** What can be done to a grace stroke that is there, though it is called "a flam". */
const GOES: ReadonlySet<ActName> = new Set<ActName>(['rest', 'remove', 'no', 'strip', 'trade', 'give', 'clear']);
