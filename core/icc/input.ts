/** ICC input profiles as what develops camera data: balanced camera values to sRGB, relative colorimetric, by Little CMS. */
import { checkNeutral } from '../camera/white';
import { fromRows, type Look } from '../look/look';
import { Problem } from '../problem';
import { codingSaid } from './coding';
import { iccHeader } from './header';
import { transform } from './transform';

/** As `profileTable` of a camera profile: input x is √(camera value ÷ neutral), output encoded sRGB, unclamped. */
export async function inputTable(bytes: Uint8Array, neutral: readonly number[], size = 33): Promise<Look> {
  const header = iccHeader(bytes);
  checkNeutral(neutral);
  if (header.class !== 'input' || header.space.trim() !== 'RGB')
    throw new Problem(
      'icc-class',
      `An ICC profile of the class ${header.class} for ${header.space.trim()} develops no camera data.`,
      'the header',
      'Take an input profile for RGB.',
    );
  const toSrgb = await transform(bytes, 'srgb');
  const root = codingSaid(header.description) === 'square root';
  try {
    return fromRows(size, header.description, (row, n) => {
      const part = row.subarray(0, n).slice();
      if (!root) for (let i = 0; i < part.length; i++) part[i] = part[i]! ** 2;
      row.set(toSrgb.run(part));
    });
  } finally {
    toSrgb.close();
  }
}
