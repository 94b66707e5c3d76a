/**
 * Common LUT Format (SMPTE ST 2136-1): writing one LUT1D or LUT3D node, with a Range before it where the domain is not
 * 0…1; reading the list of nodes, and the table where one LUT node is all there is but for such a Range before it.
 * In this format a LUT3D's blue index runs fastest.
 */
import { Problem } from '../problem';
import { decodeText, escapeXml } from '../text';
import { strictParser } from '../xml';
import { rowsOf } from './decimal';
import type { Look } from './look';

export const CLF_NODES = ['LUT1D', 'LUT3D', 'Matrix', 'Range', 'Exponent', 'ASC_CDL', 'Log'];
const scale: Record<string, number> = { '8i': 255, '10i': 1023, '12i': 4095, '16i': 65535, '16f': 1, '32f': 1 };

export interface ClfFile { id: string; name: string; description: string; nodes: { kind: string; size: number | null }[]; /** null where the chain is more than one table */ look: Look | null }

interface Node { kind: string; size: number | null; depth: number; half: boolean; dims: number[]; numbers: Float64Array; filled: number; fields: Record<string, number> }

/** Reads a process list. Numbers are divided by the node's output depth; counts must be what `dim` says. */
export function readClf(bytes: Uint8Array): ClfFile {
  const { parser, fault } = strictParser('CLF file'), again = 'Ask the supplier for the file again, or export it anew from the program that made it.';
  const out: ClfFile = { id: '', name: '', description: '', nodes: [], look: null };
  const path: string[] = [];
  let node: Node | null = null, last: Node | null = null, range: Record<string, number> | null = null, others = 0, luts = 0, text = '';
  const fill = (chunk: string, end: boolean): void => {
    // numbers may be cut by the parser's chunks: the last word is kept until it is whole
    const words = (text + chunk).split(/\s+/);
    text = end ? '' : (words.pop() ?? '');
    for (const w of words) {
      if (w === '') continue;
      const v = Number(w);
      if (!Number.isFinite(v)) throw fault('clf-number', `"${w.slice(0, 24)}" is not a number that a table can hold.`, again);
      if (node!.filled >= node!.numbers.length) throw fault('clf-count', `The array holds more than the ${node!.numbers.length} numbers that its dim says.`, again);
      node!.numbers[node!.filled++] = v;
    }
  };
  parser.on('opentag', (tag) => {
    if (path.length >= 20) throw fault('xml-depth', 'Elements are nested more than 20 deep.', again);
    path.push(tag.local);
    const attribute = (n: string): string => tag.attributes[n]?.value ?? '';
    if (path.length === 1) {
      if (tag.local !== 'ProcessList') throw fault('clf-root', 'This is no process list.', again);
      out.id = attribute('id'); out.name = attribute('name');
    } else if (path.length === 2 && CLF_NODES.includes(tag.local)) {
      if (out.nodes.length >= 50) throw fault('clf-nodes', 'The chain has more than 50 nodes.', again);
      const depth = scale[attribute('outBitDepth')];
      if (!depth) throw fault('clf-depth', `"${attribute('outBitDepth').slice(0, 20)}" is no bit depth.`, again);
      node = { kind: tag.local, size: null, depth, half: attribute('halfDomain') === 'true', dims: [], numbers: new Float64Array(0), filled: 0, fields: {} };
    } else if (node && tag.local === 'Array') {
      node.dims = attribute('dim').trim().split(/\s+/).map(Number);
      const lut = node.kind === 'LUT3D' ? node.dims.length === 4 && node.dims[0] === node.dims[1] && node.dims[0] === node.dims[2] && node.dims[3] === 3 : node.kind === 'LUT1D' ? node.dims.length === 2 && (node.dims[1] === 3 || node.dims[1] === 1) : node.dims.length === 2 && node.dims.every((n) => n >= 3 && n <= 5);
      if (!lut || node.dims.some((n) => !Number.isInteger(n))) throw fault('clf-dim', `"${attribute('dim').slice(0, 30)}" are no dimensions of a ${node.kind}.`, again);
      const n = node.dims[0]!, limit = node.kind === 'LUT3D' ? 256 : 65536;
      if (n < 2 || n > limit) throw fault('clf-size', `A ${node.kind} of ${n} points is not legal: 2 to ${limit} are.`, again);
      node.size = node.kind === 'LUT3D' || node.kind === 'LUT1D' ? n : null;
      node.numbers = new Float64Array(node.dims.reduce((a, b) => a * b, 1));
    }
  });
  parser.on('text', (t) => {
    const at = path[path.length - 1];
    if (node && at === 'Array') fill(t, false);
    else if (node?.kind === 'Range' && path.length === 3) { if (t.trim()) node.fields[at!] = Number(t); }
    else if (path.length === 2 && at === 'Description') out.description = (out.description + t).trim().slice(0, 2000);
  });
  parser.on('closetag', (tag) => {
    if (node && tag.local === 'Array') { fill('', true); if (node.filled < node.numbers.length) throw fault('clf-count', `The array ends after ${node.filled} of ${node.numbers.length} numbers.`, again); }
    if (node && path.length === 2) {
      out.nodes.push({ kind: node.kind, size: node.size });
      if (node.kind === 'LUT1D' || node.kind === 'LUT3D') { luts++; last = node; } else if (node.kind === 'Range' && !luts && !others && !range) range = node.fields; else others++;
      node = null;
    }
    path.pop();
  });
  parser.write(decodeText(bytes, 'CLF file')).close();
  if (!out.nodes.length) throw new Problem('clf-empty', 'The process list has no node that the format knows.', 'ProcessList', again);
  const lut = last as Node | null, r = range as Record<string, number> | null;
  if (luts === 1 && !others && lut && !lut.half && (!r || (r.minOutValue === 0 && r.maxOutValue === 1 && r.minInValue! < r.maxInValue!))) {
    const n = lut.size!, one = lut.kind === 'LUT1D', table = new Float32Array((one ? n : n ** 3) * 3);
    for (let i = 0; i < table.length / 3; i++) for (let c = 0; c < 3; c++) {
      const from = one ? (lut.dims[1] === 1 ? i : i * 3 + c) : (((i % n) * n + (Math.floor(i / n) % n)) * n + Math.floor(i / (n * n))) * 3 + c;
      table[i * 3 + c] = lut.numbers[from]! / lut.depth;
    }
    const domain = r ? { min: [r.minInValue!, r.minInValue!, r.minInValue!], max: [r.maxInValue!, r.maxInValue!, r.maxInValue!] } : { min: [0, 0, 0], max: [1, 1, 1] };
    out.look = { format: 'clf', kind: one ? '1d' : '3d', size: n, table, title: out.name, domain, comments: [], warnings: [] };
  }
  return out;
}

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
  const rows = t.length / 3, blueFastest = (row: number): number => { const b = row % size, g = Math.floor(row / size) % size, r = Math.floor(row / (size * size)); return (r + g * size + b * size * size) * 3; };
  const one = look.kind === '1d', body = new TextDecoder().decode(rowsOf(t, rows, one ? (row) => row * 3 : blueFastest)).trimEnd();
  if (one) out.push('<LUT1D inBitDepth="32f" outBitDepth="32f" interpolation="linear">', `<Array dim="${size} 3">`, body, '</Array>', '</LUT1D>');
  else out.push('<LUT3D inBitDepth="32f" outBitDepth="32f" interpolation="tetrahedral">', `<Array dim="${size} ${size} ${size} 3">`, body, '</Array>', '</LUT3D>');
  out.push('</ProcessList>', '');
  return out.join('\n');
}
