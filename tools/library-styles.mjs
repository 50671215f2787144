// The style sheet of the library's components in our colours, put together as the library would do it in the browser on
// every visit: there it costs time before the first place is shown.
import '@angular/compiler';
import { DOCUMENT } from '@angular/common';
import { Injector } from '@angular/core';
import { Theme } from '@primeuix/styled';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { BaseStyle } from 'primeng/base';
import { UseStyle } from 'primeng/usestyle';

const importsOf = (code) => [...code.matchAll(/from\s*['"](primeng\/[\w/-]+)['"]/g)].map((m) => m[1]);

/** The library's parts that the sources in a folder import. */
export function importedParts(folder) {
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((f) => /(?<!\.spec)\.ts$/.test(f));
  return [...new Set(files.flatMap((f) => importsOf(readFileSync(join(folder, f), 'utf8'))))].sort();
}

/** The styles of some parts and of all that these are made of. */
async function stylesOf(parts) {
  const styles = new Map();
  const queue = [...parts];
  for (const seen = new Set(); queue.length > 0;) {
    const part = queue.shift();
    if (seen.has(part)) continue;
    seen.add(part);
    queue.push(...importsOf(readFileSync(fileURLToPath(import.meta.resolve(part)), 'utf8')));
    for (const [name, value] of Object.entries(await import(part)))
      if (value?.prototype instanceof BaseStyle) styles.set(name, { Style: value, part });
  }
  return [...styles.values()];
}

/**
 * The sheet for the parts that are used, in the colours of a theme. Of what they are made of, only that is in it of which
 * the theme has tokens, or that needs none; each part itself must have what it needs.
 */
export async function librarySheet(theme, parts) {
  const sheets = [];
  const record = { provide: UseStyle, useValue: { use: (css) => (sheets.push(css), {}) } };
  const found = await stylesOf(parts);
  const injector = Injector.create({
    providers: [
      { provide: DOCUMENT, useValue: null },
      record,
      { provide: BaseStyle },
      ...found.map(({ Style }) => ({ provide: Style })),
    ],
  });
  Theme.setTheme(theme);
  const base = injector.get(BaseStyle);
  const { primitive, semantic, global, style } = base.getCommonTheme();
  for (const common of [primitive, semantic, global]) base.load(common?.css);
  base.loadBaseStyle({ name: 'global-style' }, style);
  base.loadBaseCSS();
  for (const { Style, part } of found) {
    const own = injector.get(Style);
    if (!(own.name in theme.preset.components) && /\bdt\(/.test(`${own.css ?? ''}${own.style ?? ''}`)) {
      if (parts.includes(part))
        throw new Error(`${part} needs the tokens of ${own.name}: name it in app/start/preset.ts`);
      continue;
    }
    own.loadCSS();
    const { css, style: extra } = own.getComponentTheme() ?? {};
    own.load(css);
    own.loadStyle({ name: `${own.name}-style` }, extra);
  }
  return `${sheets.join('\n')}\n`;
}
