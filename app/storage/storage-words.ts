/** What errors are called where the browser cannot open its storage, or closed it under way. */
const SHUT = ['InvalidState', 'OpenFailed', 'DatabaseClosed', 'Unknown'];

/** What a failure of the browser's storage means for the drummer, in words: what happened, what is safe, what to do. */
export function storageWords(error: unknown): string {
  const name = nameOf(error);
  if (isFull(error)) {
    return 'Storage is full: the last change is not kept, and older work may be lost. Save a backup, free some space, then try again.';
  }
  if (name.includes('MissingAPI') || name.includes('Security')) {
    return 'Nothing can be kept in this window (private?). Your work is lost when the tab closes. Print it, or use a normal window.';
  }
  if (SHUT.some((part) => name.includes(part))) {
    return 'The storage cannot be opened (full disk or private window?). What you see is still here. Free some space, then try again.';
  }
  if (name.includes('RefusedRow') && error instanceof Error) {
    return `This cannot be kept as it is (${error.message.slice(0, 200)}). Everything kept before is safe; undo the last change, or make it smaller.`;
  }
  if (name.includes('Version')) {
    return 'This shelf was last opened by a newer Loop Shelf. Reload the page to get it; nothing was changed.';
  }
  return 'The last change was not kept. What you see is still here. Try again.';
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
