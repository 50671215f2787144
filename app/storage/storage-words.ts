/** What errors are called where the browser cannot open its storage, or closed it under way. */
const SHUT = ['InvalidState', 'OpenFailed', 'DatabaseClosed', 'Unknown'];

/** What a failure of the browser's storage means for the drummer, in words: what happened, what is safe, what to do. */
export function storageWords(error: unknown): string {
  const name = nameOf(error);
  if (isFull(error)) {
    return 'The browser’s storage for Loop Shelf is full: the last change is not kept, and older work may be lost. Save a backup, free some space, then try again.';
  }
  if (name.includes('MissingAPI') || name.includes('Security')) {
    return 'This browser does not let Loop Shelf keep anything, as in some private windows. You can work, and it is gone when the tab closes: take along what you made as a picture or on paper from the Bench, or open Loop Shelf in a window that is not private.';
  }
  if (SHUT.some((part) => name.includes(part))) {
    return 'The browser does not open its storage for Loop Shelf. What you see is still here. The disk may be full, or this is a private window. Free some space, then try again.';
  }
  if (name.includes('RefusedRow') && error instanceof Error) {
    return `This cannot be kept as it is (${error.message.slice(0, 200)}). Everything kept before is safe; take back the last change, or make it smaller.`;
  }
  if (name.includes('Version')) {
    return 'This shelf was last opened by a newer Loop Shelf. Reload the page to get it; nothing was changed.';
  }
  return 'The browser could not keep the last change. What you see is still here. Try again.';
}

/** Whether it failed for want of room. */
export function isFull(error: unknown): boolean {
  return nameOf(error).includes('QuotaExceeded') || /NO_SPACE|disk full|full disk/i.test(messageOf(error));
}

/** Chromium calls a disk that is full while it writes an unknown error, and says only in its message what it was. */
function messageOf(error: unknown): string {
  if (!(error instanceof Error)) return '';
  const inner: unknown = 'inner' in error ? error.inner : undefined;
  return `${error.message} ${inner instanceof Error ? inner.message : ''}`;
}

function nameOf(error: unknown): string {
  if (!(error instanceof Error)) return '';
  const inner: unknown = 'inner' in error ? error.inner : undefined;
  return `${error.name} ${inner instanceof Error ? inner.name : ''}`;
}
