import { within } from './within';

/** So long an answer is waited for, in milliseconds: the browser may be asking the player meanwhile. */
const ANSWER_MS = 20_000;

/**
 * The microphone as it is: the browser's own clean-up would swallow soft strokes and move loud ones. Fails with the
 * browser's reason, or with a `TimeoutError`; an answer that comes after that opens nothing.
 */
export async function askMicrophone(): Promise<MediaStream> {
  const asked = navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  });
  try {
    return await within(ANSWER_MS, asked);
  } catch (error) {
    asked.then(closeMicrophone, () => undefined);
    throw error;
  }
}

/** Gives a microphone back; nobody is told that it ended. */
export function closeMicrophone(stream: MediaStream): void {
  for (const track of stream.getTracks()) {
    track.onended = null;
    track.stop();
  }
}

/** What an error is called; empty for what is none. */
export function reasonOf(error: unknown): string {
  return error instanceof Error || error instanceof DOMException ? error.name : '';
}
