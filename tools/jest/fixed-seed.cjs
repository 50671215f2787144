// Property tests try the same cases everywhere, so that a failure seen once can be seen again.
// To search further: FC_SEED=$RANDOM npx jest core
// A run of all tests tries two fifths of the cases of a property that asks for more than a hundred; SHARE=1 tries all.
const fastCheck = require('fast-check');
const { assert } = fastCheck;
const share = Number(process.env.SHARE ?? 0.4);
globalThis.shareOfCases = share;
fastCheck.configureGlobal({ seed: Number(process.env.FC_SEED ?? 20261126) });
// What it exports by name cannot be written over, only all of it at once.
fastCheck.default = {
  ...fastCheck,
  assert: (property, how = {}) =>
    assert(property, how.numRuns > 100 ? { ...how, numRuns: Math.max(100, Math.round(how.numRuns * share)) } : how),
};
