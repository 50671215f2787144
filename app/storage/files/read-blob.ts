import type { Read } from '@core/base';
import { readShelf, ShelfLines, tooLarge, WHOLE_MOST, type ShelfCode, type ShelfRead } from '@core/formats/shelf-file';

/** A file read a piece at a time; one that is not in lines is read as a whole, if it is small enough. */
export async function readBlob(file: Blob, tell: (share: number) => void): Promise<Read<ShelfRead, ShelfCode>> {
  const lines = new ShelfLines();
  const decoder = new TextDecoder();
  const piece = 1 << 22;
  for (let at = 0; at < file.size && lines.goes; at += piece) {
    const bytes = await file.slice(at, at + piece).arrayBuffer();
    lines.push(decoder.decode(bytes, { stream: at + piece < file.size }));
    tell(at / file.size);
  }
  const read = lines.end();
  if (read) return read;
  if (file.size > WHOLE_MOST) return tooLarge(file.size);
  return readShelf(await file.text());
}
