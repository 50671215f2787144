/** What is kept under each name, in words. */
export const NAMED_WORDS: Readonly<Record<string, string>> = {
  settings: 'how you count and sing, and the light',
  kits: 'your kits',
  profile: 'how fast your limbs are',
  loudness: 'how loud each part is',
  'midi-map': 'what your pads mean',
  'mic-levels': 'the levels of the microphone',
  latency: 'how late each device is',
  'latency-at': 'when each device was calibrated',
  room: 'your habits in the practice room',
};
