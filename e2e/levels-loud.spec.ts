import { fakeMicrophone, listeningTo } from './fake-microphone';
import { levelsAreSet, roomThenHits } from './levels';
import { test } from './fixture';

test.use(listeningTo(fakeMicrophone('levels-loud', { ...roomThenHits, gain: 1 })));

test('the levels are set against the noise of the room, and remembered', ({ page }) => levelsAreSet(page, 1));
