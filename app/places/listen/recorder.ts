import { signal } from '@angular/core';
import { askMicrophone, closeMicrophone, reasonOf } from '../../hits/ask-microphone';

const WHY: ReadonlyMap<string, string> = new Map([
  ['NotAllowedError', 'The microphone was not allowed. Allow it in the address bar, then record again.'],
  ['NotReadableError', 'Another program has the microphone. Close that program, then record again.'],
  ['AbortError', 'Another program has the microphone. Close that program, then record again.'],
  ['TimeoutError', 'The microphone does not answer. Unplug it and plug it in again, then record again.'],
  ['NotFoundError', 'No microphone was found. Plug one in, then record again.'],
]);

/** Seconds after which a recording ends by itself. */
export const LONGEST_TAKE = 120;

/** Records from the microphone, as it is: without the browser’s own clean-up. */
export class Recorder {
  private recorder: MediaRecorder | null = null;
  private stream: MediaStream | null = null;
  private end: ReturnType<typeof setTimeout> | undefined;
  readonly recording = signal(false);
  /** Whether the microphone was asked for and has not answered yet. */
  readonly asking = signal(false);
  readonly trouble = signal<string | null>(null);

  /** `done` hears the recording when it was stopped, also where the device was taken out. */
  async start(done: (sound: Blob) => void): Promise<void> {
    this.trouble.set(null);
    if (!('mediaDevices' in navigator) || !('MediaRecorder' in window)) {
      this.trouble.set('This browser cannot use a microphone here.');
      return;
    }
    this.asking.set(true);
    try {
      this.stream = await askMicrophone();
      this.asking.set(false);
      const parts: Blob[] = [];
      this.recorder = new MediaRecorder(this.stream);
      this.recorder.ondataavailable = ({ data }) => parts.push(data);
      this.recorder.onstop = () => {
        this.close();
        done(new Blob(parts, { type: parts[0]?.type ?? 'audio/webm' }));
      };
      for (const track of this.stream.getTracks()) track.onended = () => this.stop();
      this.recorder.start(1000);
      this.end = setTimeout(() => this.stop(), LONGEST_TAKE * 1000);
      this.recording.set(true);
    } catch (error) {
      this.asking.set(false);
      this.trouble.set(
        WHY.get(reasonOf(error)) ?? 'The microphone could not be used. Plug it in again, then record again.',
      );
      this.close();
    }
  }

  stop(): void {
    if (this.recorder?.state === 'recording') this.recorder.stop();
  }

  private close(): void {
    clearTimeout(this.end);
    if (this.stream) closeMicrophone(this.stream);
    this.stream = null;
    this.recorder = null;
    this.recording.set(false);
  }
}
