// What was kept as sentences before it was kept as facts: read by its words once, when it comes in, and never later.
// Each pattern is the words as they were then; they do not follow what is said today.
import type { FixKind, KeptFinding } from './finding';
import type { StageKind, StageMark, StagePart } from './stage';

/** How the sentences of fixes were told apart, in the order in which they were tried. */
const FIXES: readonly (readonly [words: RegExp, fix: FixKind, stage: StageKind | null])[] = [
  [/^Nothing was heard/, 'silence', null],
  [/^Only (part|the (first|second) half)/, 'part', 'part'],
  [/^It stops /, 'part', 'part'],
  [/^It begins /, 'late', 'bare'],
  [/^The tempo is steady, but/, 'tempo', 'steady-foot'],
  [/^It (falls back|runs away)/, 'tempo', 'steady-foot'],
  [/^It is played as|, as in .+ swung \d/, 'swing', 'bare'],
  [/ is left out \d/, 'left-out', 'part'],
  [/ is played without its grace/, 'ornament', 'part'],
  [/ too many\.$/, 'extra', 'bare'],
  [/^Uneven:/, 'uneven', 'bare'],
  [/hand is softer|^Heights too alike/, 'heights', 'dynamics'],
  [/^All of it lies|^The strokes off the beat/, 'late', 'bare'],
  [/^The (right|left) hand.* (drags|hurries)/, 'late', 'bare'],
  [/ (drags|hurries) \d/, 'late', 'skeleton'],
];

/** What the simple stages were called. */
const TITLES: ReadonlyMap<string, StageKind> = new Map<string, StageKind>([
  ['Say it first', 'say'],
  ['Bare sticking, one surface', 'bare'],
  ['Accents and ghosts, one surface', 'dynamics'],
  ['The skeleton', 'skeleton'],
  ['Without the timekeeping', 'no-time'],
  ['All voices, no accents', 'voices'],
  ['The whole phrase', 'whole'],
  ['With the record', 'record'],
  ['From every beat of the bar', 'every-beat'],
  ['With a steady foot', 'steady-foot'],
  ['Play freely', 'free'],
  ['The tight spot', 'tight'],
]);

const NUMBERS = ['One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight'];

/** The facts of a fix of which the sentence was kept; undefined where there was nothing to fix. */
function findingOf(words: string): KeptFinding | undefined {
  if (words === '') return undefined;
  const found = FIXES.find(([said]) => said.test(words));
  return { kind: 'earlier', words, fix: found?.[1] ?? null, stage: found?.[2] ?? null };
}

/** The facts of a stage in context, from its title; null for other stages. */
function contextOf(title: string): { readonly bars: number; readonly family: 'fill' | 'lick' } | null {
  const [, many = '', what] = /^(\S+) bars? of time, then the (fill|lick)$/.exec(title) ?? [];
  if (what === undefined) return null;
  const bars = NUMBERS.includes(many) ? NUMBERS.indexOf(many) + 1 : Number(many);
  return bars >= 1 && bars <= 16 ? { bars, family: what === 'lick' ? what : 'fill' } : null;
}

/** Which part of the phrase a title and its reason told of; null where they told none. */
function partOf(title: string, why: string): StagePart | null {
  if (title === 'The first half') return { of: 'half', half: 1 };
  if (title === 'The second half') return { of: 'half', half: 2 };
  const [, first, last = first, joined] = /^Bars? (\d+)(?: (?:and|to) (\d+))?( joined)?$/.exec(title) ?? [];
  if (first !== undefined) return { of: joined ? 'join' : 'bars', first: Number(first), last: Number(last) };
  const [, bar] = /^Only what bar (\d+) does otherwise$/.exec(title) ?? [];
  const [, known] = /already from bar (\d+)\./.exec(why) ?? [];
  if (bar !== undefined && known !== undefined) return { of: 'difference', bar: Number(bar), known: Number(known) };
  const [, many = '1', beats] = /^The first (?:(\d+) beats|(beat))$/.exec(title) ?? [];
  if (beats !== undefined || many !== '1') return { of: 'beats', many: Number(many) };
  const [, notes] = /^The first (\d+)$/.exec(title) ?? [];
  if (notes !== undefined) return { of: 'notes', many: Number(notes), each: why.startsWith('Four') ? 4 : 1 };
  if (title !== '' && why === 'The part you asked for.') return { of: 'asked', said: title.slice(0, 60) };
  return null;
}

type Loose = Readonly<Record<string, unknown>>;
const isLoose = (row: unknown): row is Loose => typeof row === 'object' && row !== null && !Array.isArray(row);
const textIn = (row: Loose, key: string): string => {
  const value = row[key];
  return typeof value === 'string' ? value : '';
};

function without(row: Loose, ...keys: readonly string[]): Loose {
  return Object.fromEntries(Object.entries(row).filter(([key]) => !keys.includes(key)));
}

/** A stage that had a title and a reason, as its facts. */
function modernStage(row: unknown): unknown {
  if (!isLoose(row) || !('title' in row)) return row;
  const [title, why] = [textIn(row, 'title'), textIn(row, 'why')];
  const rest = without(row, 'title', 'why');
  const own = contextOf(title);
  if (row['kind'] === 'context') return { ...rest, family: own?.family ?? 'fill' };
  if (row['kind'] !== 'part' && row['kind'] !== 'grow') return rest;
  const part = partOf(title, why) ?? { of: 'earlier', title: title.slice(0, 120), why: why.slice(0, 300) };
  return { ...rest, part };
}

/** The stage of a try of which the title was kept. It has no id that a drill knows. */
function markOfTitle(title: string): StageMark {
  const kind = TITLES.get(title);
  if (kind) return { id: 'earlier', kind };
  const context = contextOf(title);
  if (context) return { id: 'earlier', kind: 'context', ...context };
  const part = partOf(title, '') ?? { of: 'earlier', title: title.slice(0, 120), why: '' };
  return { id: 'earlier', kind: part.of === 'beats' || part.of === 'notes' ? 'grow' : 'part', part };
}

/** What was measured of a try, where its fix was a sentence. */
function modernMeasured(row: unknown): unknown {
  if (!isLoose(row) || !('fix' in row)) return row;
  const finding = findingOf(textIn(row, 'fix'));
  return { ...without(row, 'fix'), ...(finding && { finding }) };
}

/**
 * A try as it is kept today, whatever it was kept as: one that is in today's form is given back as it is.
 * @example
 * modernAttempt({ id: '1', stage: 'The whole phrase' }) // => { id: '1', drilled: { id: 'earlier', kind: 'whole' } }
 * modernAttempt({ id: '1' }) // => { id: '1' }
 */
export function modernAttempt(row: unknown): unknown {
  if (!isLoose(row)) return row;
  const measured = modernMeasured(row['measured']);
  const title = row['stage'];
  if (typeof title !== 'string' && measured === row['measured']) return row;
  return {
    ...without(row, 'stage'),
    ...(measured !== undefined && { measured }),
    ...(typeof title === 'string' && { drilled: markOfTitle(title) }),
  };
}

/** A page of tries as it is kept today. */
export function modernTries(row: unknown): unknown {
  if (!isLoose(row) || !Array.isArray(row['tries'])) return row;
  const all: readonly unknown[] = row['tries'];
  const tries = all.map(modernAttempt);
  return tries.some((t, i) => t !== all[i]) ? { ...row, tries } : row;
}

/** A drill as it is kept today; its tries are told by the stages that it has. */
export function modernDrill(row: unknown): unknown {
  if (!isLoose(row)) return row;
  const { plan, attempts } = row;
  const before: readonly unknown[] = isLoose(plan) && Array.isArray(plan['stages']) ? plan['stages'] : [];
  const stages = before.map(modernStage);
  const tries: readonly unknown[] = Array.isArray(attempts) ? attempts : [];
  const own = tries.map((t) => ofStage(modernAttempt(t), t, before));
  const changed = stages.some((s, i) => s !== before[i]) || own.some((t, i) => t !== tries[i]);
  if (!changed) return row;
  return {
    ...row,
    plan: isLoose(plan) && before.length > 0 ? { ...plan, stages } : plan,
    ...(Array.isArray(attempts) && { attempts: own }),
  };
}

/** A try of a drill, with the id of the stage that had its title. */
function ofStage(now: unknown, then: unknown, stages: readonly unknown[]): unknown {
  if (now === then || !isLoose(now) || !isLoose(then) || !isLoose(now['drilled'])) return now;
  const stage = stages.find((s) => isLoose(s) && s['title'] === then['stage']);
  return isLoose(stage) ? { ...now, drilled: { ...now['drilled'], id: stage['id'] } } : now;
}

/** A take as it is kept today: its stage, and that of what was meant. */
export function modernTake(row: unknown): unknown {
  if (!isLoose(row)) return row;
  const { stage, meant } = row;
  const own = modernStage(stage);
  const of = isLoose(meant) ? modernStage(meant['stage']) : undefined;
  if (own === stage && (!isLoose(meant) || of === meant['stage'])) return row;
  return { ...row, stage: own, ...(isLoose(meant) && { meant: { ...meant, stage: of } }) };
}
