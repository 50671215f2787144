/** A phrase among its kin: what it was grown from stands above it, what was grown from it below. */
export interface KinNode {
  readonly id: string;
  readonly name: string;
  /** The one change that made it of its parent; empty for the one everything grew from. */
  readonly change: string;
  readonly children: readonly KinNode[];
}

/** What is needed of a phrase to know its kin. */
export interface Kin {
  readonly id: string;
  readonly name: string;
  readonly parent: { readonly id: string; readonly change: string } | null;
}

/**
 * The tree a phrase stands in, from the eldest that is still on the shelf. A ring of parents, as a file may hold one,
 * is cut where it closes.
 */
export function kinOf(all: readonly Kin[], id: string): KinNode | null {
  const byId = new Map(all.map((k) => [k.id, k]));
  const own = byId.get(id);
  if (!own) return null;
  let eldest = own;
  const above = new Set([own.id]);
  for (;;) {
    const parent = eldest.parent ? byId.get(eldest.parent.id) : undefined;
    if (!parent || above.has(parent.id)) break;
    above.add(parent.id);
    eldest = parent;
  }
  const children = new Map<string, Kin[]>();
  for (const k of all) if (k.parent) children.set(k.parent.id, [...(children.get(k.parent.id) ?? []), k]);
  const seen = new Set<string>();
  const node = (k: Kin): KinNode => {
    seen.add(k.id);
    const below = (children.get(k.id) ?? []).filter((c) => !seen.has(c.id));
    return {
      id: k.id,
      name: k.name,
      change: k.parent && k !== eldest ? k.parent.change : '',
      children: below.map(node),
    };
  };
  return node(eldest);
}
