export { musicXmlOf } from './write';
export { readMusicXml } from './read';
export { mxlOf } from './mxl';
export { placeOf, voiceAt } from './signs';
export { el } from './xml';
