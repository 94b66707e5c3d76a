/** Whether a TIFF holds a picture that was compressed with loss: JPEG in it, in either way (TIFF 6.0, Technical Note 2). */
import { Ifds } from './ifd';

const COMPRESSION = 259;
const JPEG = [6, 7];

/** False for what is no TIFF that can be read: whoever reads the picture says so. */
export function isLossyTiff(bytes: Uint8Array): boolean {
  try {
    const ifds = new Ifds(bytes);
    const first = ifds.read(ifds.first);
    return ifds.numbers(first, COMPRESSION, 1).some((how) => JPEG.includes(how));
  } catch {
    return false;
  }
}
