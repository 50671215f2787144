import { fakeMicrophone, listeningTo } from './fake-microphone';
import { levelsAreSet, roomThenHits } from './levels';
import { test } from './fixture';

test.use(listeningTo(fakeMicrophone('levels-low', { ...roomThenHits, gain: 10 ** (-30 / 20) })));

test('the levels are set with an input 30 dB lower, and remembered', ({ page }) =>
  levelsAreSet(page, 10 ** (-30 / 20)));
