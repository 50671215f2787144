export { type Rudiment, RUDIMENT_FAMILIES, rudimentById, RUDIMENTS, searchRudiments } from './catalogue';
