/** What cells are made of, fetched from the server and kept while it is in use. */
import type { CellLayer, CellSpec } from '@/core/bench/cell';
import { whiteBalanceText, type WhiteBalance } from '@/core/bench/white-balance';
import { prepare, type Prepared } from '@/core/look/apply';
import type { Look } from '@/core/look/look';
import { resized } from '@/core/look/resample';
import { recentlyUsed } from '@/core/recently-used';
import { ask, Fault, headerOf } from '../ask';
import { pixelsOf, type Picture } from '../pixels';
import { renderingOf, type Rendering } from '../rendering';
import type { White } from './protocol';

export interface Linear {
  width: number;
  height: number;
  /** three of 16 bits a pixel */ data: Uint16Array;
}
export interface Base {
  table: Prepared;
  neutral: number[];
  white: White;
}

const pictures = recentlyUsed<Picture>(24);
const linears = recentlyUsed<Linear>(12);
const renderings = recentlyUsed<Rendering>(60);
const bases = recentlyUsed<Base>(80);

/** The rendered picture of a frame, in one of the widths that the server keeps. */
export function renderedPicture(cell: CellSpec): Promise<Picture> {
  let width = 1500;
  if (cell.width <= 320) width = 320;
  else if (cell.width <= 900) width = 900;
  return pictures(`${cell.frame} ${width}`, async () => {
    const { bytes } = await ask(`/api/frames/${cell.frame}?w=${width}`);
    return pixelsOf(bytes);
  });
}

/** Camera data of a frame, linear. */
export const linearPicture = (frame: string, width: number): Promise<Linear> =>
  linears(`${frame} ${width}`, async () => {
    const { headers, bytes } = await ask(`/api/frames/${frame}/linear?w=${width}`);
    const [w = 0, h = 0] = (headers.get('x-size') ?? '').split(',').map(Number);
    return { width: w, height: h, data: new Uint16Array(bytes) };
  });

/** An editor's export, in the size in which the frame itself is seen here, so that the two can be compared. */
export async function exportedPicture(cell: CellSpec, id: string | null): Promise<Picture> {
  if (!id) throw new Fault('There is no such export of this frame.', 'Bring one in by the column’s menu.');
  const own = cell.camera ? await linearPicture(cell.frame, cell.width) : await renderedPicture(cell);
  const { bytes } = await ask(`/api/exports/${id}?w=${cell.width}`);
  return pixelsOf(bytes, own);
}

/** A look or preset, for sRGB values. */
export const renderingOfLayer = ({ version, encoding }: CellLayer): Promise<Rendering> =>
  renderings(`${version} ${encoding}`, async () => {
    const made = await renderingOf(version, { points: 33, ...(encoding ? { as: encoding } : {}) });
    if (made.kind === 'preset' || made.look.kind === '3d') return made;
    return { kind: 'table', look: resized(made.look, 65) }; // curves as a table, which the kernel takes
  });

/** The table that develops a frame by a cell's profile, or by the frame's own matrices, at a white. */
export function baseTable(cell: CellSpec, white: WhiteBalance): Promise<Base> {
  const query = new URLSearchParams({ frame: cell.frame, version: 'plain', white: whiteBalanceText(white) });
  if (cell.source.from === 'profile') {
    query.set('version', cell.source.version);
    query.set('stages', cell.source.stages.join(','));
    if (cell.source.anchor) query.set('anchor', String(cell.source.anchor));
  }
  return bases(query.toString(), async () => {
    const { headers, bytes } = await ask(`/api/bench/base?${query}`);
    const about = headerOf<{ size: number; neutral: number[]; white: White }>(headers, 'x-base');
    const look: Look = {
      format: 'cube',
      kind: '3d',
      size: about.size,
      table: new Float32Array(bytes),
      title: '',
      domain: { min: [0, 0, 0], max: [1, 1, 1] },
      comments: [],
      warnings: [],
    };
    return { neutral: about.neutral, white: about.white, table: prepare(look) };
  });
}
