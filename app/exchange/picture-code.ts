import qrcode from 'qrcode-generator';

/** The most letters of an address that a picture code holds (40-L, bytes). */
export const MOST_CODED = 2900;

/** A picture code as a path of squares, a unit wide each, with how many there are to a side. */
export interface PictureCode {
  readonly side: number;
  readonly path: string;
}

/** An address as a picture code, to be read by a telephone; null where it is too long for one. */
export function pictureCode(address: string): PictureCode | null {
  if (address.length > MOST_CODED) return null;
  const code = qrcode(0, 'L');
  code.addData(address, 'Byte');
  code.make();
  const side = code.getModuleCount();
  let path = '';
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      if (!code.isDark(y, x)) continue;
      let run = 1;
      while (x + run < side && code.isDark(y, x + run)) run++;
      path += `M${x} ${y}h${run}v1h-${run}z`;
      x += run;
    }
  return { side, path };
}
