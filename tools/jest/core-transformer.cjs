// What runs without a page: swc, with globals of the module's own.
const { createTransformer } = require('@swc/jest');
const { wrapped } = require('./own-globals.cjs');

exports.createTransformer = (options) => wrapped(createTransformer(options));
