/** A script as the bundler made it: its length in bytes, and the scripts that it imports at once. */
export interface Script {
  readonly size: number;
  readonly imports: readonly string[];
}

/** The scripts that others start from: what is run first, the framework, the shell, the checks of rows, the places. */
export interface Starts {
  readonly first: string;
  readonly framework: string;
  readonly shell: string;
  readonly checks: readonly string[];
  readonly places: readonly string[];
}

/** What a set of places has in common is a file of its own from this size on, in bytes: less is merged with others. */
export const WORTH_A_FILE = 32_000;

/** Scripts with all that they import at once, each once. */
export function withImports(scripts: ReadonlyMap<string, Script>, names: Iterable<string>): Set<string> {
  const seen = new Set<string>();
  const queue = [...names];
  for (let name = queue.pop(); name !== undefined; name = queue.pop()) {
    if (seen.has(name)) continue;
    seen.add(name);
    queue.push(...(scripts.get(name)?.imports ?? []));
  }
  return seen;
}

/**
 * Which scripts are merged into one file, by the file's name. The bundler writes one for each set of places that share
 * something, most of them small, and every file that is fetched costs time. No two of the files import each other: a
 * script imports only what at least as many places share, so what sets of one size, or of two sizes next to each other,
 * have in common can lie together. What is not in the map is left as it is: what a page begins with, what one place has
 * for itself, and dialogs.
 */
export function scriptGroups(scripts: ReadonlyMap<string, Script>, starts: Starts): Map<string, string> {
  const first = withImports(scripts, [starts.first]);
  const framework = withImports(scripts, [starts.framework]);
  const shell = withImports(scripts, [starts.shell]);
  const checks = withImports(scripts, starts.checks);
  const sharers = new Map<string, Set<string>>();
  for (const place of starts.places)
    for (const name of withImports(scripts, [place])) sharers.set(name, (sharers.get(name) ?? new Set()).add(place));
  const setOf = (name: string): string => [...(sharers.get(name) ?? [])].sort().join(' ');
  const inAll = new Set([...first, ...framework, ...shell]);
  const sizes = new Map<string, number>();
  for (const name of sharers.keys())
    if (!inAll.has(name)) sizes.set(setOf(name), (sizes.get(setOf(name)) ?? 0) + (scripts.get(name)?.size ?? 0));

  const groupOf = (name: string): string | null => {
    if (first.has(name)) return null;
    if (framework.has(name)) return 'framework';
    if (shell.has(name)) return 'shell';
    const places = sharers.get(name)?.size ?? 0;
    if (places === starts.places.length) return 'places';
    if (places > 1)
      return (sizes.get(setOf(name)) ?? 0) >= WORTH_A_FILE ? setOf(name) : `shared by ${places & ~1} or ${places | 1}`;
    return places === 0 && checks.has(name) ? 'checks' : null;
  };
  return new Map(
    [...scripts.keys()].flatMap((name) => {
      const group = groupOf(name);
      return group === null ? [] : [[name, group] as const];
    }),
  );
}
