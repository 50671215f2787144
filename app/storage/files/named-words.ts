/** What is kept under each name, in words. */
export const NAMED_WORDS: Readonly<Record<string, string>> = {
  settings: 'how you count and sing, and the light',
  kits: 'your kits',
  profile: 'the speed of your limbs',
  loudness: 'how loud each part is',
  'midi-map': 'the notes of your pads',
  'mic-levels': 'microphone levels',
  latency: 'the delay of each device',
  'latency-at': 'when each delay was measured',
  room: 'your settings in Drill',
};
