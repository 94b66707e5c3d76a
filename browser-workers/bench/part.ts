/** A part of a frame at its full size, developed and laid over as the whole is. */
import type { CellSpec } from '@/core/bench/cell';
import { applyRange } from '@/core/bench/range';
import { developTo } from '@/core/camera/table';
import { demosaic } from '@/core/frame/demosaic';
import { cropped, oriented, type Rect } from '@/core/frame/orient';
import { ask, Fault, headerOf } from '../ask';
import { balanced, baseOf, layOver, markBeyond, rangeFieldOf, refuseProfileOfRendered } from './develop';
import type { PartRequest } from './protocol';

interface PartHead {
  kind: 'mosaic' | 'linear' | 'rendered';
  orientation: number;
  cfa: number[];
  black: number[];
  white: number[];
  neutral: number[];
  shown: Rect;
  stored: Rect;
}

function refuseWithoutFullSize(cell: CellSpec): void {
  if (cell.camera && cell.source.from === 'camera-jpeg')
    throw new Fault('The camera’s own JPEG is not kept at full size.', 'Look at it as a whole.');
  refuseProfileOfRendered(cell);
  if (cell.source.from === 'export') throw new Fault('An export is not kept at full size.', 'Look at it as a whole.');
}

/** Camera values of the block, three of 16 bits a pixel, upright. */
function cameraBlock(head: PartHead, bytes: ArrayBuffer): Uint16Array {
  const samples = new Uint16Array(bytes);
  const { w, h } = head.stored;
  const values = head.kind === 'mosaic' ? demosaic({ ...head, width: w, height: h, samples }) : samples;
  return oriented(values, w, h, 3, head.orientation);
}

/** RGB to RGBA. */
function opaque(bytes: ArrayBuffer, block: Uint8ClampedArray): void {
  const samples = new Uint8Array(bytes);
  for (let i = 0, o = 0; o < block.length; i += 3, o += 4) {
    block[o] = samples[i]!;
    block[o + 1] = samples[i + 1]!;
    block[o + 2] = samples[i + 2]!;
    block[o + 3] = 255;
  }
}

export async function partOf({ part: cell, at, whole }: PartRequest): Promise<Uint8ClampedArray> {
  refuseWithoutFullSize(cell);
  const [answer, base] = await Promise.all([
    ask(`/api/frames/${cell.frame}/part?x=${at.x}&y=${at.y}&w=${at.w}&h=${at.h}`),
    cell.camera ? baseOf(cell) : null,
  ]);
  const head = headerOf<PartHead>(answer.headers, 'x-part');
  const { shown } = head;
  const block = new Uint8ClampedArray(shown.w * shown.h * 4);
  let camera: Uint16Array | null = null;
  if (base) {
    camera = cameraBlock(head, answer.bytes);
    developTo(base.table, base.neutral, camera, block);
  } else opaque(answer.bytes, block);
  const cut = cropped(block, shown, at, 4);
  const before = base ? cut : await balanced(cell, cut);
  const laid = before.slice();
  await layOver(cell, laid);
  if (cell.range) {
    const field = await rangeFieldOf(cell, cell.range);
    applyRange(laid, at.w, at.h, cell.range, field, { x: at.x, y: at.y, ...whole });
  }
  if (cell.mark) {
    const samples = camera && cropped(camera, shown, at, 3);
    await markBeyond(cell, cell.mark, { width: at.w, pixels: laid, codes: before, samples });
  }
  return laid;
}
