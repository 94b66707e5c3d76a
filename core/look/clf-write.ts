/** Writing the Common LUT Format (SMPTE ST 2136-1): one LUT1D or LUT3D node, with a Range or Matrix before it where the domain is not 0…1. */
import { escapeXml } from '../text';
import { rowsOf } from './decimal';
import type { Look } from './look';

/** XML text, byte-stable. `id` is the process list's identifier. */
export function writeClf(look: Look, id: string): string {
  const { table, size } = look;
  const out = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<ProcessList xmlns="http://www.smpte-ra.org/ns/2136-1/2024" id="${escapeXml(id)}" name="${escapeXml(look.title)}" compCLFversion="3">`,
  ];
  if (look.domain.min.some((v) => v !== 0) || look.domain.max.some((v) => v !== 1)) {
    const same = new Set(look.domain.min).size === 1 && new Set(look.domain.max).size === 1;
    if (same)
      out.push(
        '<Range inBitDepth="32f" outBitDepth="32f">',
        `<minInValue>${look.domain.min[0]}</minInValue>`,
        `<maxInValue>${look.domain.max[0]}</maxInValue>`,
        '<minOutValue>0</minOutValue>',
        '<maxOutValue>1</maxOutValue>',
        '</Range>',
      );
    else {
      const scale = look.domain.min.map((a, c) => 1 / (look.domain.max[c]! - a));
      out.push(
        '<Matrix inBitDepth="32f" outBitDepth="32f">',
        '<Array dim="3 4">',
        ...[0, 1, 2].map(
          (r) => [0, 1, 2].map((c) => (r === c ? scale[r]! : 0)).join(' ') + ` ${-look.domain.min[r]! * scale[r]!}`,
        ),
        '</Array>',
        '</Matrix>',
      );
    }
  }
  const rows = table.length / 3;
  const blueFastest = (row: number): number => {
    const b = row % size;
    const g = Math.floor(row / size) % size;
    const r = Math.floor(row / (size * size));
    return (r + g * size + b * size * size) * 3;
  };
  const one = look.kind === '1d';
  const body = new TextDecoder().decode(rowsOf(table, rows, one ? (row) => row * 3 : blueFastest)).trimEnd();
  if (one)
    out.push(
      '<LUT1D inBitDepth="32f" outBitDepth="32f" interpolation="linear">',
      `<Array dim="${size} 3">`,
      body,
      '</Array>',
      '</LUT1D>',
    );
  else
    out.push(
      '<LUT3D inBitDepth="32f" outBitDepth="32f" interpolation="tetrahedral">',
      `<Array dim="${size} ${size} ${size} 3">`,
      body,
      '</Array>',
      '</LUT3D>',
    );
  out.push('</ProcessList>', '');
  return out.join('\n');
}
