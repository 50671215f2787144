export { drillSeconds } from './duration';
export { type Expected, expectedOf } from './expect';
export { renditionOf, type RenditionRecord, RenditionRecordSchema } from './record';
export { expectedIn, lengthsAt, rendition, type Rendition, requestOf, silencesIn } from './rendition';
export { loopTrack, MOST_TRACK_SECONDS, partSeconds, practiceTrack, type TrackPart, trackSeconds } from './track';
