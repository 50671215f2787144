// Property tests try the same cases everywhere, so that a failure seen once can be seen again.
// To search further: FC_SEED=$RANDOM npx jest core
const { configureGlobal } = require('fast-check');
configureGlobal({ seed: Number(process.env.FC_SEED ?? 20261126) });
