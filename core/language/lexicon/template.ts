import type { Token } from './tokens';

/** What a slot of a template found: where it ends, and what it stands for. */
export interface Found<T = unknown> {
  readonly end: number;
  readonly value: T;
}

/** Reads a slot at a place of a line: every way it can be read. */
export type SlotReader = (tokens: readonly Token[], at: number) => readonly Found[];
export type SlotReaders = Readonly<Record<string, SlotReader>>;

type Node =
  | { readonly kind: 'word'; readonly word: string }
  | { readonly kind: 'slot'; readonly reader: string; readonly name: string }
  | { readonly kind: 'any'; readonly of: readonly (readonly Node[])[] };

export type Values = Readonly<Record<string, unknown>>;
export interface Match {
  readonly end: number;
  readonly values: Values;
}

/**
 * A template as it is written in the rules: words (`bass_drum` for a name that is read as one word), `[what may be left
 * out]`, `(one | or another)`, and `{slot}` or `{slot:name}`.
 */
export class Template {
  private parsed: readonly Node[] | null = null;

  constructor(readonly text: string) {}

  /** There are hundreds, and a page that is never spoken to needs none: each is taken apart when it is used first. */
  private get nodes(): readonly Node[] {
    return (this.parsed ??= this.parse());
  }

  private parse(): readonly Node[] {
    const marks = this.text.match(/[[\]()|]|\{[^}]*\}|[^\s[\]()|{}]+/g) ?? [];
    let at = 0;
    const sequence = (): Node[] => {
      const nodes: Node[] = [];
      for (; at < marks.length; at++) {
        const mark = marks[at] ?? '';
        if (mark === ']' || mark === ')' || mark === '|') break;
        if (mark === '[' || mark === '(') {
          const of: Node[][] = mark === '[' ? [[]] : [];
          do {
            at++;
            of.push(sequence());
          } while (marks[at] === '|');
          nodes.push({ kind: 'any', of });
        } else if (mark.startsWith('{')) {
          const [reader = '', name = reader] = mark.slice(1, -1).split(':');
          nodes.push({ kind: 'slot', reader, name });
        } else nodes.push({ kind: 'word', word: mark.replace(/_/g, ' ') });
      }
      return nodes;
    };
    return sequence();
  }

  private begins: ReadonlySet<string> | null | undefined;

  /** The words of which one must stand first; null where something else may. */
  get first(): ReadonlySet<string> | null {
    return (this.begins ??= firstOf(this.nodes));
  }

  /** Every word that is written in it. */
  words(): readonly string[] {
    const of = (nodes: readonly Node[]): string[] =>
      nodes.flatMap((n) => (n.kind === 'word' ? [n.word] : n.kind === 'any' ? n.of.flatMap(of) : []));
    return of(this.nodes);
  }

  /** Every way in which it fits at a place of a line. */
  fits(tokens: readonly Token[], at: number, slots: SlotReaders): readonly Match[] {
    if (this.first && !this.first.has(tokens[at]?.word ?? '')) return [];
    return fitting(this.nodes, 0, tokens, at, slots, {});
  }
}

/** Words that can stand first; null where a slot can, or nothing need. */
function firstOf(nodes: readonly Node[]): ReadonlySet<string> | null {
  const found = new Set<string>();
  for (const node of nodes) {
    if (node.kind === 'slot') return null;
    if (node.kind === 'word') return found.add(node.word);
    for (const way of node.of) {
      const own = firstOf(way);
      if (own) for (const w of own) found.add(w);
      else if (way.length > 0) return null;
    }
    // One of several that cannot be left out.
    if (node.of.every((way) => way.length > 0)) return found;
  }
  return null;
}

function fitting(
  nodes: readonly Node[],
  nth: number,
  tokens: readonly Token[],
  at: number,
  slots: SlotReaders,
  values: Values,
): readonly Match[] {
  const node = nodes[nth];
  if (!node) return [{ end: at, values }];
  switch (node.kind) {
    case 'word':
      return tokens[at]?.word === node.word ? fitting(nodes, nth + 1, tokens, at + 1, slots, values) : [];
    case 'slot':
      return (slots[node.reader]?.(tokens, at) ?? []).flatMap((f) =>
        fitting(nodes, nth + 1, tokens, f.end, slots, { ...values, [node.name]: f.value }),
      );
    case 'any':
      return node.of.flatMap((way) =>
        fitting(way, 0, tokens, at, slots, values).flatMap((m) =>
          fitting(nodes, nth + 1, tokens, m.end, slots, m.values),
        ),
      );
  }
}
