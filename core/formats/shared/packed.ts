import { deflateSync, Inflate, strFromU8, strToU8 } from 'fflate';

/** The longest code that is read, in letters. */
export const MOST_CODE = 200_000;

/**
 * Text as letters that can stand in an address: compressed, in letters, digits, - and _.
 * @example
 * unpackedText(packedText('R l l K'), 100) // => { ok: true, text: "R l l K" }
 */
export function packedText(text: string): string {
  return lettersOf(deflateSync(strToU8(text), { level: 9 }));
}

/**
 * Such letters as the text again. What they unpack to is bounded whatever they say.
 * @param most the longest text that is unpacked, in bytes
 * @example
 * unpackedText('no!', 100) // => { ok: false, why: "damaged" }
 */
export function unpackedText(
  code: string,
  most: number,
):
  | { readonly ok: true; readonly text: string }
  | { readonly ok: false; readonly why: 'damaged' | 'too long' | 'too large' } {
  if (code.length > MOST_CODE) return { ok: false, why: 'too long' };
  const bytes = bytesOf(code);
  const text = bytes && unpacked(bytes, most);
  if (text === 'too large') return { ok: false, why: 'too large' };
  return text ? { ok: true, text } : { ok: false, why: 'damaged' };
}

function unpacked(bytes: Uint8Array, most: number): string | null {
  const parts: Uint8Array[] = [];
  let [total, ended] = [0, false];
  try {
    const inflate = new Inflate((part, last) => {
      total += part.length;
      ended = last;
      if (total > most) throw new Error('too large');
      parts.push(part.slice());
    });
    // In small steps, so that a bomb is left before it has unpacked.
    for (let at = 0; at < bytes.length; at += 256) inflate.push(bytes.subarray(at, at + 256), at + 256 >= bytes.length);
  } catch {
    return total > most ? 'too large' : null;
  }
  if (!ended) return null;
  const whole = new Uint8Array(total);
  parts.reduce((at, part) => {
    whole.set(part, at);
    return at + part.length;
  }, 0);
  return strFromU8(whole);
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';

/** Bytes as base64 with the letters of RFC 4648 §5, without padding. */
function lettersOf(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const three = ((bytes[i] ?? 0) << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    const many = Math.min(3, bytes.length - i) + 1;
    for (let k = 0; k < many; k++) out += LETTERS[(three >> (18 - 6 * k)) & 63] ?? '';
  }
  return out;
}

function bytesOf(text: string): Uint8Array | null {
  if (text.length % 4 === 1 || text === '') return null;
  const out = new Uint8Array(Math.floor((text.length * 3) / 4));
  let [bits, held, at] = [0, 0, 0];
  for (const letter of text) {
    const six = LETTERS.indexOf(letter);
    if (six < 0) return null;
    bits = ((bits << 6) | six) & 0xffff;
    held += 6;
    if (held >= 8) {
      held -= 8;
      out[at++] = (bits >> held) & 255;
    }
  }
  return out;
}
