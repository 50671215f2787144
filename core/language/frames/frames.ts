import { numberAt, word } from '../grammar/counts';
import type { Pick } from '../grammar/pick';
import { FILLERS_BY_WORD, PARTICLES, VERBS_BY_WORD, type ActName } from '../lexicon/verbs';
import type { Values } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';
import type { RuleContext, Said } from '../rules/rule';
import { endOf, rolesAt, type RoleName, type RoleSaid } from './roles';

/** What a clause can mean by its act and the roles that are filled, in whatever order they stand. */
export interface Frame {
  readonly acts: readonly ActName[];
  /** The act may go unsaid: the roles imply it. */
  readonly unsaid: boolean;
  readonly needs: readonly RoleName[];
  readonly may: readonly RoleName[];
  readonly mean: (roles: Values, scene: RuleContext) => Said;
}

/** A clause as it was read: the frame, what fills its roles (under their names), and where it ends. */
export interface FrameSaid {
  readonly end: number;
  readonly frame: Frame;
  readonly values: Values;
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
  readonly parts: number;
}

const ENDS = new Set([',', ';', ':', 'then', 'and', 'while', '.', 'but']);

/** Every way to read a clause from a place of the line on as verbs, roles and words that change nothing. */
export function framesAt(tokens: readonly Token[], start: number, frames: readonly Frame[]): readonly FrameSaid[] {
  const found: FrameSaid[] = [];
  const seen = new Set<string>();
  const ends = endingsOf(tokens);
  let looked = 0;
  const go = (s: State): void => {
    if (looked++ > MOST * 10 || found.length > MOST || !ends(s.at)) return;
    const over = s.at === tokens.length || ENDS.has(word(tokens, s.at));
    if (over && s.roles.length > 0) found.push(...fitting(s, frames, seen));
    if (s.at >= tokens.length || s.parts >= MOST_PARTS) return;
    for (const next of steps(tokens, s)) go(next);
  };
  go({ at: start, acts: null, roles: [], open: [], parts: 0 });
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
  const plain = PARTICLE_WORDS.has(w) || STEMS.has(w) || w === ',' ? [at + 1] : [];
  return [
    ...plain,
    ...(aside === null ? [] : [aside]),
    ...said.flatMap(({ words }) => endOf(tokens, at, words) ?? []),
    ...rolesAt(tokens, at).map((r) => r.end),
  ];
}

function steps(tokens: readonly Token[], s: State): readonly State[] {
  const w = word(tokens, s.at);
  const out: State[] = [];
  const parts = s.parts + 1;
  const stem = STEMS.get(w);
  for (const { words, acts } of VERBS_BY_WORD.get(w) ?? []) {
    const end = endOf(tokens, s.at, words);
    if (end === null) continue;
    const both = together(s.acts, acts);
    if (both === undefined) continue;
    out.push({ ...s, at: end, acts: both, open: [...s.open, stem ?? w], parts });
  }
  for (const p of PARTICLES) {
    if (p.particle !== w || !s.open.includes(p.verb)) continue;
    out.push({ ...s, at: s.at + 1, acts: p.acts, parts });
  }
  for (const p of PARTICLES)
    if (stem === p.verb && s.acts === null && !s.open.includes(p.verb))
      out.push({ ...s, at: s.at + 1, open: [...s.open, p.verb], parts });
  // What is said behind a comma may belong to it.
  if (w === ',' && s.roles.length > 0) out.push({ ...s, at: s.at + 1, parts });
  for (const { words } of FILLERS_BY_WORD.get(w) ?? []) {
    const end = endOf(tokens, s.at, words);
    if (end !== null) out.push({ ...s, at: end, parts });
  }
  const aside = asideAt(tokens, s.at);
  if (aside !== null) out.push({ ...s, at: aside, parts });
  for (const role of rolesAt(tokens, s.at))
    if (s.roles.every((r) => r.role !== role.role)) out.push({ ...s, at: role.end, roles: [...s.roles, role], parts });
  return out;
}

/** "So it becomes a seven", "so it runs over the bar line", "make it a five by": what follows from the rest. */
function asideAt(tokens: readonly Token[], at: number): number | null {
  const by = endOf(tokens, at, ['make', 'it', 'a']) ?? endOf(tokens, at, ['make', 'it']);
  if (by !== null && numberAt(tokens, by).length > 0 && word(tokens, by + 1) === 'by') return by + 2;
  if (word(tokens, at) !== 'so') return null;
  let from = word(tokens, at + 1) === 'that' ? at + 2 : at + 1;
  if (!/^(?:it|that|this|they|we)$/.test(word(tokens, from))) return null;
  from++;
  if (!/^(?:becomes|is|makes|runs|goes|sounds|feels|turns|fits|gets|has)$/.test(word(tokens, from))) return null;
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

function fitting(s: State, frames: readonly Frame[], seen: Set<string>): readonly FrameSaid[] {
  return frames.flatMap((frame, nth): FrameSaid[] => {
    const isMeant = s.acts === null ? frame.unsaid : frame.acts.some((a) => s.acts?.includes(a));
    if (!isMeant) return [];
    if (!frame.needs.every((n) => s.roles.some((r) => r.role === n))) return [];
    const allowed = (r: RoleName): boolean => frame.needs.includes(r) || frame.may.includes(r) || r === 'scope';
    if (!s.roles.every((r) => allowed(r.role))) return [];
    const values: Record<string, unknown> = { by: {}, order: s.roles.map((r) => r.role) };
    for (const r of s.roles) {
      values[r.role] = r.value;
      (values['by'] as Record<string, string>)[r.role] = r.by;
    }
    const own = values['pick'] as Pick | undefined;
    // "In beat 3" is all of it.
    if ((values['by'] as Record<string, string>)['pick'] === 'in' && own?.counts)
      values['pick'] = { ...own, counts: own.counts.map((c) => (c.as === 'beat' ? { ...c, as: 'whole' } : c)) };
    if (values['scope'] !== undefined) {
      const pick = scoped(values['pick'] as Pick | undefined, values['scope'] as Partial<Pick>);
      if (!pick) return [];
      values['pick'] = pick;
    }
    const key = `${s.at} ${nth} ${JSON.stringify(values)}`;
    if (seen.has(key)) return [];
    seen.add(key);
    return [{ end: s.at, frame, values }];
  });
}
