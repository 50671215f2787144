/** What the browser's folders can do that TypeScript does not know yet. */
export interface Folder extends FileSystemDirectoryHandle {
  queryPermission?(how: { mode: 'readwrite' }): Promise<PermissionState>;
  requestPermission?(how: { mode: 'readwrite' }): Promise<PermissionState>;
  entries(): AsyncIterableIterator<[string, FileSystemHandle]>;
}
const HOW = { mode: 'readwrite' } as const;

/** Writes a file whole or not at all: the browser puts it in place when it is closed. */
export async function put(folder: Folder, name: string, content: Blob): Promise<void> {
  const stream = await (await folder.getFileHandle(name, { create: true })).createWritable();
  try {
    await stream.write(content);
    await stream.close();
  } catch (error) {
    await stream.abort().catch(() => undefined);
    throw error;
  }
}

/** Whether a folder may be written; where `asks` says so, the player is asked. */
export async function allowed(folder: Folder, asks: boolean): Promise<boolean> {
  if (!folder.queryPermission) return true;
  if ((await folder.queryPermission(HOW)) === 'granted') return true;
  try {
    return asks && (await folder.requestPermission?.(HOW)) === 'granted';
  } catch {
    return false;
  }
}
