// Components and stores: Angular's own transformer; of core/, which it only passes through, swc's.
const angular = require('jest-preset-angular').default;
const { wrapped } = require('./own-globals.cjs');

exports.createTransformer = (options) => wrapped(angular.createTransformer(options));
