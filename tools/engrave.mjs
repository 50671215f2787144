// Draws scores by an engraver that is not ours, and counts what it drew: for the tests only. Scores come as a JSON list
// on the standard input; a list of counts goes out.
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';

let text = '';
for await (const part of process.stdin) text += part;
const kit = new VerovioToolkit(await createVerovioModule());
const out = JSON.parse(text).map((xml) => {
  const loaded = kit.loadData(xml) && kit.getLog() === '';
  const [svg, mei] = [kit.renderToSVG(1), kit.getMEI()];
  const many = (all, pattern) => (all.match(pattern) ?? []).length;
  return {
    loaded: Boolean(loaded),
    log: kit.getLog(),
    notes: many(mei, /<note /g),
    graces: many(mei, / grace="/g),
    ghosts: many(mei, /head\.mod="paren"/g),
    tuplets: many(mei, /<tuplet /g),
    accents: many(mei, /artic="acc"|<artic [^>]*acc/g),
    stickings: many(svg, /class="fing"/g),
  };
});
process.stdout.write(JSON.stringify(out));
