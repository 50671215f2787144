/** The names of the databases: the user's own shelf, and the demo. */
export const OWN_DATABASE = 'loop-shelf';
export const DEMO_DATABASE = 'loop-shelf-demo';
