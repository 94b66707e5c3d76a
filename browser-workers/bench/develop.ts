/** A cell's picture: the frame developed and balanced, then its looks, trim and range compression. */
import { isDeveloped, type CellSpec } from '@/core/bench/cell';
import { markOutside, uncut, type Gamut } from '@/core/bench/display-gamut';
import { applyTrim } from '@/core/bench/measure';
import { balancedBy, grayWorld } from '@/core/bench/neutral';
import { compressRange, rangeField, type RangeCompression, type RangeField } from '@/core/bench/range';
import { developTo } from '@/core/camera/table';
import { applyTo, prepare, type Prepared } from '@/core/look/apply';
import type { Look } from '@/core/look/look';
import { applyPreset } from '@/core/preset/apply';
import { recentlyUsed } from '@/core/recently-used';
import { LRUCache } from 'lru-cache';
import { Fault } from '../ask';
import type { Picture } from '../pixels';
import { evaluateBy } from '../rendering';
import type { White } from './protocol';
import { baseTable, exportedPicture, linearPicture, renderedPicture, renderingOfLayer, type Base } from './sources';

export interface Developed extends Picture {
  white: White | null;
}

const developed = recentlyUsed<Developed>(48);
const fields = recentlyUsed<RangeField>(6);
const doses = new LRUCache<string, Prepared>({ max: 12 });

export function refuseProfileOfRendered(cell: CellSpec): void {
  if (!cell.camera && cell.source.from === 'profile')
    throw new Fault(
      'A camera profile needs camera data; this frame is a rendered file.',
      'Take a camera file as the row, or the profile out of the column.',
    );
}

/** The profile's table for the row's white, which the frame as a whole decides where it is found by itself. */
export async function baseOf(cell: CellSpec): Promise<Base> {
  if (cell.white.by !== 'gray world') return baseTable(cell, cell.white);
  const neutral = grayWorld({ kind: 'camera', ...(await linearPicture(cell.frame, cell.width)) });
  return baseTable(cell, { by: 'neutral', neutral });
}

/** Pixels of a rendered file, with the row's white; the same array where that is as it is. */
export async function balanced(cell: CellSpec, pixels: Uint8ClampedArray): Promise<Uint8ClampedArray> {
  if (cell.source.from === 'camera-jpeg') return pixels;
  if (cell.white.by === 'neutral') return balancedBy(pixels, cell.white.neutral);
  if (cell.white.by !== 'gray world') return pixels;
  return balancedBy(pixels, grayWorld({ kind: 'rendered', ...(await renderedPicture(cell)) }));
}

async function developCamera(cell: CellSpec): Promise<Developed> {
  const { width, height, data: values } = await linearPicture(cell.frame, cell.width);
  const base = await baseOf(cell);
  const data = new Uint8ClampedArray(width * height * 4);
  developTo(base.table, base.neutral, values, data);
  return { width, height, data, white: base.white };
}

/** The frame developed and balanced, before any look. */
export function develop(cell: CellSpec): Promise<Developed> {
  const { source } = cell;
  return developed(JSON.stringify([cell.frame, cell.width, source, cell.white]), async () => {
    if (source.from === 'export') return { ...(await exportedPicture(cell, source.id)), white: null };
    if (isDeveloped(cell)) return developCamera(cell);
    refuseProfileOfRendered(cell);
    const picture = await renderedPicture(cell);
    return { ...picture, data: await balanced(cell, picture.data), white: null };
  });
}

/** A table at a strength, ready for the kernel. */
function dosed(look: Look, name: string, strength: number): Prepared {
  const key = `${name} ${strength}`;
  let dose = doses.get(key);
  if (!dose) {
    dose = prepare(look, strength / 100);
    doses.set(key, dose);
  }
  return dose;
}

/** The cell's looks, then its trim, in place. */
export async function layOver(cell: CellSpec, pixels: Uint8ClampedArray): Promise<void> {
  const looks = await Promise.all(
    cell.layers.map(async (layer) => ({
      ...layer,
      name: `${layer.version} ${layer.encoding}`,
      rendering: await renderingOfLayer(layer),
    })),
  );
  for (const { rendering, name, strength } of looks) {
    if (strength <= 0) continue;
    if (rendering.kind === 'preset') applyPreset(rendering.effect, strength / 100, pixels, pixels);
    else applyTo(dosed(rendering.look, name, strength), pixels, pixels);
  }
  if (cell.trim) applyTrim(pixels, cell.trim);
}

/** How strongly each place of the whole picture is compressed, for parts of it. */
export const rangeFieldOf = (cell: CellSpec, range: RangeCompression): Promise<RangeField> =>
  fields(JSON.stringify(cell), async () => {
    const { data, width, height } = await develop(cell);
    const laid = data.slice();
    await layOver(cell, laid);
    return rangeField(laid, width, height, range);
  });

/** The cell's picture, and what it was before any look. */
export async function pictureOf(cell: CellSpec): Promise<Developed & { before: Uint8ClampedArray }> {
  const [frame] = await Promise.all([develop(cell), ...cell.layers.map(renderingOfLayer)]);
  const data = frame.data.slice();
  await layOver(cell, data);
  if (cell.range) compressRange(data, frame.width, frame.height, cell.range);
  return { ...frame, data, before: frame.data };
}

/**
 * Marks what the display cannot show, in place, and says how many percent that is.
 * @param codes the developed picture before looks
 * @param samples the camera's values, where there are any
 */
export async function markBeyond(
  cell: CellSpec,
  gamut: Gamut,
  picture: { width: number; pixels: Uint8ClampedArray; codes: Uint8ClampedArray; samples: Uint16Array | null },
): Promise<number> {
  const { samples } = picture;
  const base = samples && (await baseOf(cell));
  const looks = await Promise.all(
    cell.layers
      .filter((layer) => layer.strength > 0)
      .map(async (layer) => ({ f: evaluateBy(await renderingOfLayer(layer)), strength: layer.strength / 100 })),
  );
  const developing = base && samples && { samples, table: base.table, neutral: base.neutral };
  return markOutside(picture.pixels, picture.width, gamut, uncut(picture.codes, developing, looks));
}
