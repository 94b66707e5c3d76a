/**
 * Common LUT Format (SMPTE ST 2136-1), writing only so far: one LUT1D or LUT3D node, with a Range before it where the
 * domain is not 0…1. In this format a LUT3D's blue index runs fastest.
 */
import { escapeXml } from '../text';
import type { Look } from './look';

const number = (v: number): string => String(Math.fround(v) === v ? Number(v.toPrecision(9)) : v);

/** XML text, byte-stable. `id` is the process list's identifier. */
export function writeClf(look: Look, id: string): string {
  const { table: t, size } = look, out = ['<?xml version="1.0" encoding="UTF-8"?>', `<ProcessList xmlns="http://www.smpte-ra.org/ns/2136-1/2024" id="${escapeXml(id)}" name="${escapeXml(look.title)}" compCLFversion="3">`];
  if (look.domain.min.some((v) => v !== 0) || look.domain.max.some((v) => v !== 1)) {
    const same = new Set(look.domain.min).size === 1 && new Set(look.domain.max).size === 1;
    if (same) out.push('<Range inBitDepth="32f" outBitDepth="32f">', `<minInValue>${look.domain.min[0]}</minInValue>`, `<maxInValue>${look.domain.max[0]}</maxInValue>`, '<minOutValue>0</minOutValue>', '<maxOutValue>1</maxOutValue>', '</Range>');
    else {
      const k = look.domain.min.map((a, c) => 1 / (look.domain.max[c]! - a));
      out.push('<Matrix inBitDepth="32f" outBitDepth="32f">', '<Array dim="3 4">', ...[0, 1, 2].map((r) => [0, 1, 2].map((c) => (r === c ? k[r]! : 0)).join(' ') + ` ${-look.domain.min[r]! * k[r]!}`), '</Array>', '</Matrix>');
    }
  }
  if (look.kind === '1d') {
    out.push('<LUT1D inBitDepth="32f" outBitDepth="32f" interpolation="linear">', `<Array dim="${size} 3">`);
    for (let i = 0; i < t.length; i += 3) out.push(`${number(t[i]!)} ${number(t[i + 1]!)} ${number(t[i + 2]!)}`);
    out.push('</Array>', '</LUT1D>');
  } else {
    out.push('<LUT3D inBitDepth="32f" outBitDepth="32f" interpolation="tetrahedral">', `<Array dim="${size} ${size} ${size} 3">`);
    for (let r = 0; r < size; r++) for (let g = 0; g < size; g++) for (let b = 0; b < size; b++) {
      const i = (r + g * size + b * size * size) * 3;
      out.push(`${number(t[i]!)} ${number(t[i + 1]!)} ${number(t[i + 2]!)}`);
    }
    out.push('</Array>', '</LUT3D>');
  }
  out.push('</ProcessList>', '');
  return out.join('\n');
}
