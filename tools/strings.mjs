// Every string of the sources that a user may read, as JSON lines: { file, line, kind, text }. Templates are read by
// Angular's own compiler and TypeScript by its own; what is put together at run time stands as its pieces with … between.
import { parseTemplate } from '@angular/compiler';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import ts from 'typescript';

/** Attributes and inputs whose value is read or spoken. */
const SAID =
  /^(aria-?label|title|placeholder|label|alt|header|words|what|empty(Filter)?Message|pTooltip|aria-roledescription|attr\.aria-label)$/i;
const NOT_OURS = /\.spec\.ts$|\/testing\/|\/generated\/|^core\/drill\/earlier\.ts$|\.d\.ts$/;

const sources = execFileSync('git', ['ls-files', 'app', 'core'], { encoding: 'utf8' })
  .trim()
  .split('\n')
  .filter((f) => /\.(ts|html)$/.test(f) && !NOT_OURS.test(f));

const found = [];
const flat = (text) => text.replace(/\s+/g, ' ').trim();
const isWords = (text) => /\p{L}{2}/u.test(text);
function add(file, line, kind, text) {
  const said = flat(text);
  if (isWords(said)) found.push({ file, line, kind, text: said });
}

/** The literals of an expression of a template, as a person meets them. */
function literalsOf(source) {
  const file = ts.createSourceFile('expression.ts', `(${source})`, ts.ScriptTarget.Latest, true);
  const texts = [];
  const walk = (node) => {
    // What is compared with is no word that is shown.
    if (ts.isBinaryExpression(node) && /^[=!]==?$/.test(node.operatorToken.getText())) return;
    if (ts.isElementAccessExpression(node)) return;
    if (ts.isStringLiteralLike(node)) texts.push(node.text);
    ts.forEachChild(node, walk);
  };
  walk(file);
  return texts;
}

/** A text with its interpolations as …, and the literals inside them on their own. */
function interpolated(text) {
  const inside = [];
  const whole = text.replace(/\{\{([\s\S]*?)\}\}/g, (_, expression) => {
    inside.push(...literalsOf(expression));
    return '…';
  });
  return [whole, ...inside];
}

const CHILDREN = ['children', 'branches', 'cases', 'groups', 'empty', 'placeholder', 'loading', 'error'];

function readTemplate(source, file, base) {
  const { nodes } = parseTemplate(source, file, { preserveWhitespaces: false });
  const lineOf = (node) => base + node.sourceSpan.start.line + 1;
  const walk = (node, inButton) => {
    const isButton =
      inButton ||
      node.name === 'button' ||
      (node.attributes ?? []).some((a) => a.name === 'class' && /\bbtn\b/.test(a.value));
    const kind = isButton ? 'button' : 'text';
    if (typeof node.value === 'string' && !node.name) add(file, lineOf(node), kind, node.value);
    else if (node.value?.source && !node.name)
      for (const text of interpolated(node.value.source)) add(file, lineOf(node), kind, text);
    for (const a of node.attributes ?? []) if (SAID.test(a.name)) add(file, lineOf(a), 'label', a.value);
    for (const a of node.inputs ?? [])
      if (SAID.test(a.name) && a.value?.source)
        for (const text of literalsOf(a.value.source)) add(file, lineOf(a), 'label', text);
    for (const part of CHILDREN)
      for (const child of [node[part] ?? []].flat()) if (typeof child === 'object') walk(child, isButton);
  };
  for (const node of nodes) walk(node, false);
}

/** Whether a literal of TypeScript may be read: two words, or one that begins as a sentence does. */
const mayBeRead = (text) =>
  (/\p{L}[,.:;!?…’”]* \S*\p{L}/u.test(text) && !/^[.#[<^(]|=>|\|/.test(text)) || /^[“…]?\p{Lu}\p{Ll}+/u.test(text);

function readScript(source, file) {
  const tree = ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true);
  const lineOf = (node) => tree.getLineAndCharacterOfPosition(node.getStart()).line;
  const isComponent = (node) => ts.isDecorator(node) && /^(Component|Directive)\b/.test(node.expression.getText());
  const walk = (node) => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isLiteralTypeNode(node)) return;
    if (ts.isRegularExpressionLiteral(node)) return;
    if (isComponent(node)) {
      const options = node.expression.arguments?.[0];
      for (const p of options?.properties ?? [])
        if (p.name?.getText() === 'template') readTemplate(p.initializer.text, file, lineOf(p.initializer));
      return;
    }
    const text = ts.isStringLiteralLike(node)
      ? node.text
      : ts.isTemplateExpression(node)
        ? node.head.text + node.templateSpans.map((s) => `…${s.literal.text}`).join('')
        : null;
    if (text !== null && mayBeRead(text)) add(file, lineOf(node) + 1, 'script', text);
    ts.forEachChild(node, walk);
  };
  walk(tree);
}

for (const file of sources) {
  const source = readFileSync(file, 'utf8');
  if (file.endsWith('.html')) readTemplate(source, file, 0);
  else readScript(source, file);
}
process.stdout.write(found.map((f) => JSON.stringify(f)).join('\n'));
