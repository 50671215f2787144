import { Type, type Static } from '@sinclair/typebox';
import { moment, stableJson, TimeSchema } from '../base';

/**
 * What is kept under one name: settings, kits, what is known of the limbs. `stamps` says when each of its fields was
 * changed last, so that two tabs or two devices that change two of them keep both.
 */
export const NamedSchema = Type.Object({
  key: Type.String({ minLength: 1, maxLength: 80 }),
  value: Type.Unknown(),
  stamps: Type.Optional(Type.Record(Type.String({ maxLength: 200 }), TimeSchema)),
});
export type Named = Static<typeof NamedSchema>;

type Fields = ReadonlyMap<string, unknown>;
interface Split {
  readonly split: (value: unknown) => Fields;
  readonly join: (fields: Fields) => unknown;
}

const plain: Split = {
  split: (value) => (isRecord(value) ? new Map(Object.entries(value)) : new Map([['', value]])),
  join: (fields) => (fields.has('') ? fields.get('') : Object.fromEntries([...fields].sort(byKey))),
};

/** Kits are fields of their own, each by its id; their order is one more. */
const kits: Split = {
  split: (value) => {
    if (!isRecord(value) || !Array.isArray(value['kits'])) return plain.split(value);
    const { kits: list, ...rest } = value;
    const all = (list as unknown[]).filter((k): k is Record<string, unknown> => isRecord(k));
    return new Map<string, unknown>([
      ...Object.entries(rest),
      ['order', all.map((k) => k['id'])],
      ...all.map((k): [string, unknown] => [`kit:${String(k['id'])}`, k]),
    ]);
  },
  join: (fields) => {
    const own = [...fields].filter(([key]) => key.startsWith('kit:')).sort(byKey);
    if (own.length === 0) return plain.join(fields);
    const order = fields.get('order');
    const placeOf = (key: string): number => {
      const at = Array.isArray(order) ? order.indexOf(key.slice(4)) : -1;
      return at < 0 ? own.length : at;
    };
    own.sort(([a], [b]) => placeOf(a) - placeOf(b) || (a < b ? -1 : 1));
    const rest = [...fields].filter(([key]) => !key.startsWith('kit:') && key !== 'order');
    const list = own.map(([, kit]) => kit);
    return {
      ...Object.fromEntries(rest.sort(byKey)),
      kits: list,
    };
  },
};

/** Of the limbs, each with its rates and when they were timed is a field of its own. */
const profile: Split = {
  split: (value) => {
    if (!isRecord(value) || !isRecord(value['rates']) || !Array.isArray(value['measured'])) return plain.split(value);
    const { rates, measured, ...rest } = value;
    const timed = (measured as unknown[]).filter(isRecord);
    return new Map<string, unknown>([
      ...Object.entries(rest),
      ...Object.entries(rates).map(([limb, own]): [string, unknown] => [
        `limb:${limb}`,
        { rates: own, measured: timed.filter((m) => m['limb'] === limb) },
      ]),
    ]);
  },
  join: (fields) => {
    const limbs = [...fields].filter(([key]) => key.startsWith('limb:')).sort(byKey);
    if (limbs.length === 0) return plain.join(fields);
    const own = limbs.flatMap(([key, limb]) => (isRecord(limb) ? [{ key: key.slice(5), limb }] : []));
    return {
      ...Object.fromEntries([...fields].filter(([key]) => !key.startsWith('limb:')).sort(byKey)),
      rates: Object.fromEntries(own.map(({ key, limb }) => [key, limb['rates']])),
      measured: own.flatMap(({ limb }) => (Array.isArray(limb['measured']) ? (limb['measured'] as unknown[]) : [])),
    };
  },
};

function splitOf(key: string): Split {
  return key === 'kits' ? kits : key === 'profile' ? profile : plain;
}

/**
 * What changed from one value to another, field by field: `undefined` for a field that is gone. Empty when nothing did.
 * @example
 * [...fieldChanges('settings', { a: 1, b: 2 }, { a: 1, b: 3 })] // => [["b",3]]
 */
export function fieldChanges(key: string, before: unknown, after: unknown): Fields {
  const { split } = splitOf(key);
  const [old, now] = [split(before), split(after)];
  const changed = new Map<string, unknown>();
  for (const [field, value] of now) if (!same(old.get(field), value)) changed.set(field, value);
  for (const field of old.keys()) if (!now.has(field)) changed.set(field, undefined);
  return changed;
}

/**
 * A named thing with some of its fields changed at a time; the others stay as they are kept. `usual` is what it is
 * where nothing is kept yet.
 * @example
 * patched(undefined, 'settings', { a: 1, b: 2 }, new Map([['b', 3]]), 9) // => { key: 'settings', value: { a: 1, b: 3 }, stamps: { b: 9 } }
 */
export function patched(old: Named | undefined, key: string, usual: unknown, changes: Fields, at: number): Named {
  const { split, join } = splitOf(key);
  const fields = new Map(split(old ? old.value : usual));
  const stamps = stampsOf(old);
  for (const [field, value] of changes) {
    if (value === undefined) fields.delete(field);
    else fields.set(field, value);
    stamps.set(field, moment(at, stamps.get(field)));
  }
  return { ...old, key, value: join(fields), stamps: Object.fromEntries(stamps) };
}

/** Two accounts of one named thing as one: of each field the later stands, and of the same time the greater text. */
export function mergedNamed(a: Named, b: Named): Named {
  const { split, join } = splitOf(a.key);
  const [own, other] = [split(a.value), split(b.value)];
  const fields = new Map<string, unknown>();
  const stamps = new Map<string, number>();
  const [ownStamps, otherStamps] = [stampsOf(a), stampsOf(b)];
  const names = new Set([...own.keys(), ...other.keys(), ...ownStamps.keys(), ...otherStamps.keys()]);
  for (const name of [...names].sort()) {
    // A field that neither is kept nor was ever dropped says nothing.
    const told = [
      { fields: own, at: ownStamps.get(name) ?? (own.has(name) ? 0 : -1) },
      { fields: other, at: otherStamps.get(name) ?? (other.has(name) ? 0 : -1) },
    ].sort((x, y) => y.at - x.at || (textOf(x.fields, name) < textOf(y.fields, name) ? 1 : -1));
    const [won] = told;
    if (!won || won.at < 0) continue;
    if (won.fields.has(name)) fields.set(name, won.fields.get(name));
    if (won.at > 0) stamps.set(name, won.at);
  }
  const others = mergedOthers(restOf(a), restOf(b));
  return {
    ...others,
    key: a.key,
    value: join(fields),
    ...(stamps.size > 0 ? { stamps: Object.fromEntries(stamps) } : {}),
  };
}

/** Fields of which only later versions know: each comes through, and of two the greater text. */
export function mergedOthers(
  a: Readonly<Record<string, unknown>>,
  b: Readonly<Record<string, unknown>>,
): Record<string, unknown> {
  const names = [...new Set([...Object.keys(a), ...Object.keys(b)])].sort();
  return Object.fromEntries(
    names.map((n) => {
      const [inA, inB] = [Object.hasOwn(a, n), Object.hasOwn(b, n)];
      return [n, !inB || (inA && stableJson(a[n]) > stableJson(b[n])) ? a[n] : b[n]];
    }),
  );
}

/** Names may be any, also such as every object has from the language. */
function stampsOf(named: Named | undefined): Map<string, number> {
  return new Map(Object.entries(named?.stamps ?? {}));
}

function restOf(named: Named): Record<string, unknown> {
  return Object.fromEntries(Object.entries(named).filter(([key]) => !['key', 'value', 'stamps'].includes(key)));
}

function textOf(fields: Fields, name: string): string {
  return fields.has(name) ? stableJson(fields.get(name)) : '';
}

function same(a: unknown, b: unknown): boolean {
  return a === b || (a !== undefined && b !== undefined && stableJson(a) === stableJson(b));
}

function byKey([a]: readonly [string, unknown], [b]: readonly [string, unknown]): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
