const { createHash } = require('node:crypto');
const { readFileSync } = require('node:fs');

// A test runs in a context of its own, where every use of a global (`Math`, `Set`) asks the context anew; in the
// tightest loops of core/ that is most of the time (one spec of sounds took 247 s with it and 17 s without). So each
// module gets the globals that are never replaced as names of its own, on the line of "use strict".
const NAMES = [
  'Array',
  'Float32Array',
  'Float64Array',
  'Infinity',
  'Int32Array',
  'JSON',
  'Map',
  'Math',
  'NaN',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint8Array',
];
const OWN = `var ${NAMES.map((name) => `${name}=globalThis.${name}`).join(',')};`;
const WORDS = readFileSync(__filename);
const STRICT = /^(["'])use strict\1;/u;

/** The code that another transformer makes, with these names. What is no module of ours stays as it is. */
function withOwnGlobals(made, file) {
  const code = typeof made === 'string' ? made : made.code;
  if (!/\.ts$/u.test(file) || !STRICT.test(code)) return made;
  const own = code.replace(STRICT, (strict) => `${strict}${OWN}`);
  return typeof made === 'string' ? own : { ...made, code: own };
}

/** Wraps a transformer of Jest. What it made is kept apart by this file's own words, so that a change here is seen. */
exports.wrapped = (inner) => ({
  process: (code, file, options) => withOwnGlobals(inner.process(code, file, options), file),
  getCacheKey: (...args) =>
    createHash('sha1')
      .update(inner.getCacheKey(...args))
      .update(WORDS)
      .digest('hex'),
});
