export { packedText, unpackedText } from './packed';
export {
  phraseCode,
  readPhraseCode,
  readShared,
  sharedOf,
  sharedText,
  type SharedCode,
  type SharedPhrase,
} from './shared';
