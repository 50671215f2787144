// Of two folders at most one knows the other, a folder and the one it stands in too. The rules of dependency-cruiser see
// circles of files, and of folders only those that stand side by side. Tests are left out: what they need of another
// folder says nothing of how the house is built.
import { cruise } from 'dependency-cruiser';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';

const { options } = createRequire(import.meta.url)('../.dependency-cruiser.cjs');
const { output } = await cruise(['app', 'core', 'server', 'demo'], {
  ...options,
  exclude: { path: '\\.spec\\.ts$|^(app|core)/testing/|node_modules|/generated/' },
});

/** What each folder knows, with one import that shows it. */
const known = new Map();
for (const { source, dependencies } of output.modules) {
  for (const { resolved } of dependencies) {
    const [from, to] = [dirname(source), dirname(resolved)];
    if (from === to) continue;
    // The public face of a folder hands on what its own folders have.
    if (source.endsWith('/index.ts') && to.startsWith(`${from}/`)) continue;
    if (!known.has(from)) known.set(from, new Map());
    known.get(from).set(to, `${source} → ${resolved}`);
  }
}
const mutual = [...known].flatMap(([from, others]) =>
  [...others].flatMap(([to, here]) => {
    const back = known.get(to)?.get(from);
    return from < to && back ? [`${from} and ${to} know each other:\n  ${here}\n  ${back}`] : [];
  }),
);
for (const pair of mutual) console.error(pair);
process.exit(mutual.length > 0 ? 1 : 0);
