/**
 * Reading the Common LUT Format (SMPTE ST 2136-1): the chain of process nodes as functions, and, where one LUT node is all
 * there is but for a Range before it, its table. A LUT3D's blue index runs fastest in the file.
 */
import { Problem } from '../problem';
import { decodeText } from '../text';
import { strictParser } from '../xml';
import {
  cdlStyles,
  channels,
  exponentStyles,
  halfValue,
  logStyles,
  lut1d,
  lut3d,
  lutHalf,
  matrix,
  range,
  type LogParams,
  type Step,
} from './clf-nodes';
import type { Look } from './look';
import type { Interpolation } from './sample';

const CLF_NODES = ['LUT1D', 'LUT3D', 'Matrix', 'Range', 'Exponent', 'ASC_CDL', 'Log'];
const scale: Record<string, number> = { '8i': 255, '10i': 1023, '12i': 4095, '16i': 65535, '16f': 1, '32f': 1 };
const again = 'Ask the supplier for the file again, or export it anew from the program that made it.';

export interface ClfNode {
  kind: string;
  size: number | null;
  style: string;
}
export interface ClfFile {
  id: string;
  name: string;
  description: string;
  nodes: ClfNode[];
  /** null where the chain is more than one table */ look: Look | null;
  /** What the first node takes; null where it takes anything. */ domain: { min: number; max: number } | null;
  /** The whole chain on one color, in place. Each LUT3D's own interpolation wins over the default. */
  program(fallback: Interpolation): Step;
}

interface Node {
  kind: string;
  size: number | null;
  style: string;
  inDepth: number;
  depth: number;
  half: boolean;
  raw: boolean;
  interpolation: string;
  dims: number[];
  numbers: Float64Array;
  filled: number;
  fields: Record<string, number>;
  params: Record<string, string>[];
  lists: Record<string, number[]>;
  where: string;
}

/** Reads a process list. Counts must be what `dim` says; what the format does not know is refused by name. */
export function readClf(bytes: Uint8Array): ClfFile {
  const { parser, fault } = strictParser('CLF file');
  const out = { id: '', name: '', description: '' };
  const nodes: Node[] = [];
  const path: string[] = [];
  let node: Node | null = null;
  let text = '';
  const fill = (chunk: string, end: boolean): void => {
    // numbers may be cut by the parser's chunks: the last word is kept until it is whole
    const words = (text + chunk).split(/\s+/);
    text = end ? '' : (words.pop() ?? '');
    for (const w of words) {
      if (w === '') continue;
      const v = /^[+-]?(inf|infinity)$/i.test(w) ? (w.startsWith('-') ? -Infinity : Infinity) : Number(w);
      if (!Number.isFinite(v) && !node!.half)
        throw fault('clf-number', `"${w.slice(0, 24)}" is not a number that a table can hold.`, again);
      if (node!.filled >= node!.numbers.length)
        throw fault(
          'clf-count',
          `The array holds more than the ${node!.numbers.length} numbers that its dim says.`,
          again,
        );
      node!.numbers[node!.filled++] = v;
    }
  };
  parser.on('opentag', (tag) => {
    if (path.length >= 20) throw fault('xml-depth', 'Elements are nested more than 20 deep.', again);
    path.push(tag.local);
    const attribute = (n: string): string => tag.attributes[n]?.value ?? '';
    if (path.length === 1) {
      if (tag.local !== 'ProcessList') throw fault('clf-root', 'This is no process list.', again);
      out.id = attribute('id');
      out.name = attribute('name');
    } else if (path.length === 2 && CLF_NODES.includes(tag.local)) {
      if (nodes.length >= 50) throw fault('clf-nodes', 'The chain has more than 50 nodes.', again);
      const depth = scale[attribute('outBitDepth')];
      const inDepth = scale[attribute('inBitDepth') || '32f'];
      if (!depth || !inDepth)
        throw fault(
          'clf-depth',
          `"${(depth ? attribute('inBitDepth') : attribute('outBitDepth')).slice(0, 20)}" is no bit depth.`,
          again,
        );
      nodes.push(
        (node = {
          kind: tag.local,
          size: null,
          style: attribute('style'),
          inDepth,
          depth,
          half: attribute('halfDomain') === 'true',
          raw: attribute('rawHalfs') === 'true',
          interpolation: attribute('interpolation'),
          dims: [],
          numbers: new Float64Array(0),
          filled: 0,
          fields: {},
          params: [],
          lists: {},
          where: `node ${nodes.length + 1} (${tag.local}), line ${parser.line}`,
        }),
      );
    } else if (path.length === 2 && !['Description', 'InputDescriptor', 'OutputDescriptor', 'Info'].includes(tag.local))
      throw fault(
        'clf-node',
        `A process node "${tag.local.slice(0, 40)}" is not one of the format's.`,
        `The format has ${CLF_NODES.join(', ')}.`,
      );
    else if (node && tag.local === 'IndexMap')
      throw fault(
        'clf-index-map',
        'An index map was taken out of the format with its second version.',
        'Export the look anew as version 3 or later.',
      );
    else if (node && tag.local === 'Array') {
      node.dims = attribute('dim').trim().split(/\s+/).map(Number);
      const d = node.dims;
      const lut =
        node.kind === 'LUT3D'
          ? d.length === 4 && d[0] === d[1] && d[0] === d[2] && d[3] === 3
          : node.kind === 'LUT1D'
            ? d.length === 2 && (d[1] === 3 || d[1] === 1)
            : node.kind === 'Matrix' &&
              (d.length === 2 || (d.length === 3 && d[2] === 3)) &&
              d[0] === 3 &&
              (d[1] === 3 || d[1] === 4);
      if (!lut || d.some((n) => !Number.isInteger(n)))
        throw fault('clf-dim', `"${attribute('dim').slice(0, 30)}" are no dimensions of a ${node.kind}.`, again);
      const n = d[0]!;
      const limit = node.kind === 'LUT3D' ? 256 : 65536;
      if (node.kind !== 'Matrix' && (n < 2 || n > limit))
        throw fault('clf-size', `A ${node.kind} of ${n} points is not legal: 2 to ${limit} are.`, again);
      if (node.half && n !== 65536)
        throw fault('clf-size', `A table over half-floats has 65,536 entries, not ${n}.`, again);
      node.size = node.kind === 'Matrix' ? null : n;
      node.numbers = new Float64Array((d.length === 3 ? d.slice(0, 2) : d).reduce((a, b) => a * b, 1));
    } else if (node && (tag.local === 'ExponentParams' || tag.local === 'LogParams'))
      node.params.push(Object.fromEntries(Object.values(tag.attributes).map((a) => [a.name, a.value])));
  });
  parser.on('text', (t) => {
    const at = path[path.length - 1]!;
    if (node && at === 'Array') fill(t, false);
    else if (node && path.length >= 3) {
      if (t.trim()) {
        const list = t.trim().split(/\s+/).map(Number);
        node.fields[at] = list[0]!;
        node.lists[at] = list;
      }
    } else if (path.length === 2 && at === 'Description') out.description = (out.description + t).trim().slice(0, 2000);
  });
  parser.on('closetag', (tag) => {
    if (node && tag.local === 'Array') {
      fill('', true);
      if (node.filled < node.numbers.length)
        throw fault('clf-count', `The array ends after ${node.filled} of ${node.numbers.length} numbers.`, again);
    }
    if (node && path.length === 2) node = null;
    path.pop();
  });
  parser.write(decodeText(bytes, 'CLF file')).close();
  if (!nodes.length)
    throw new Problem('clf-empty', 'The process list has no node that the format knows.', 'ProcessList', again);
  const steps = nodes.map(stepOf);
  const first = nodes[0]!;
  const firstRange = first.kind === 'Range' && first.style !== 'noClamp' ? first : null;
  const domain =
    (first.kind === 'LUT1D' && !first.half) || first.kind === 'LUT3D'
      ? { min: 0, max: 1 }
      : firstRange && firstRange.fields.minInValue !== undefined && firstRange.fields.maxInValue !== undefined
        ? { min: firstRange.fields.minInValue / first.inDepth, max: firstRange.fields.maxInValue / first.inDepth }
        : null;
  return {
    ...out,
    nodes: nodes.map((n) => ({ kind: n.kind, size: n.size, style: n.style })),
    domain,
    look: singleTable(nodes, out.name),
    program: (fallback) => {
      const run = steps.map((s) => s(fallback));
      return (v) => {
        for (const s of run) s(v);
      };
    },
  };
}

/** One LUT, alone or behind a Range that maps its input onto 0…1. */
function singleTable(nodes: Node[], title: string): Look | null {
  const luts = nodes.filter((n) => n.kind === 'LUT1D' || n.kind === 'LUT3D');
  const lut = luts[0];
  const r = nodes.length === 2 && nodes[0]!.kind === 'Range' ? nodes[0]! : null;
  if (luts.length !== 1 || !lut || lut.half || nodes.length !== (r ? 2 : 1)) return null;
  const f = r?.fields;
  if (
    r &&
    f &&
    !(f.minOutValue === 0 && f.maxOutValue === r.depth && f.minInValue! < f.maxInValue! && r.style !== 'noClamp')
  )
    return null;
  return tableOf(
    lut,
    title,
    r && f
      ? { min: [0, 0, 0].map(() => f.minInValue! / r.inDepth), max: [0, 0, 0].map(() => f.maxInValue! / r.inDepth) }
      : undefined,
  );
}

function tableOf(n: Node, title: string, domain = { min: [0, 0, 0], max: [1, 1, 1] }): Look {
  const size = n.size!;
  const one = n.kind === 'LUT1D';
  const table = new Float32Array((one ? size : size ** 3) * 3);
  for (let i = 0; i < table.length / 3; i++)
    for (let c = 0; c < 3; c++) {
      const from = one
        ? n.dims[1] === 1
          ? i
          : i * 3 + c
        : (((i % size) * size + (Math.floor(i / size) % size)) * size + Math.floor(i / (size * size))) * 3 + c;
      table[i * 3 + c] = n.raw ? halfValue(n.numbers[from]!) : n.numbers[from]! / n.depth;
    }
  const interpolation =
    n.interpolation === 'trilinear' || n.interpolation === 'tetrahedral' ? n.interpolation : undefined;
  return {
    format: 'clf',
    kind: one ? '1d' : '3d',
    size,
    table,
    title,
    domain,
    comments: [],
    warnings: [],
    ...(interpolation ? { interpolation } : {}),
  };
}

const need = (n: Node, message: string): Problem => new Problem('clf-params', message, n.where, again);
/** One function a channel, from parameters that hold for all or name a channel. */
function byChannel<T>(n: Node, make: (p: Record<string, string>) => T): T[] {
  const all = n.params.find((p) => !p.channel);
  const of = (c: string): Record<string, string> | undefined => n.params.find((p) => p.channel === c) ?? all;
  return ['R', 'G', 'B'].map((c) => {
    const p = of(c);
    if (!p) throw need(n, `There are no parameters for channel ${c}.`);
    return make(p);
  });
}
const numberOf = (n: Node, p: Record<string, string>, name: string, fallback: number | null): number => {
  const v = p[name] === undefined || p[name] === '' ? fallback : Number(p[name]);
  if (v === null || !Number.isFinite(v)) throw need(n, `${name} is missing or no number.`);
  return v;
};

type Maker = (fallback: Interpolation) => Step;
const makers: Record<string, (n: Node) => Maker> = {
  LUT1D: (n) => {
    const size = n.size ?? 0;
    const table = new Float64Array(size * 3);
    if (!size) throw need(n, 'The node has no array.');
    for (let i = 0; i < size; i++)
      for (let c = 0; c < 3; c++) {
        const v = n.numbers[n.dims[1] === 1 ? i : i * 3 + c]!;
        table[i * 3 + c] = n.raw ? halfValue(v) : v / n.depth;
      }
    const step = n.half ? lutHalf(table) : lut1d(table, size);
    return () => step;
  },
  LUT3D: (n) => {
    if (!n.size) throw need(n, 'The node has no array.');
    const look = tableOf(n, '');
    return (fallback) => lut3d(look, look.interpolation ?? fallback);
  },
  Matrix: (n) => {
    if (!n.dims.length) throw need(n, 'The node has no array.');
    const w = n.dims[1]!;
    const k = n.inDepth / n.depth;
    const m = Array.from({ length: 9 }, (_, i) => n.numbers[Math.floor(i / 3) * w + (i % 3)]! * k);
    const offset = [0, 1, 2].map((r) => (w === 4 ? n.numbers[r * 4 + 3]! / n.depth : 0));
    const step = matrix(m, offset);
    return () => step;
  },
  Range: (n) => {
    const f = n.fields;
    const has = (k: string): number | undefined => {
      if (f[k] !== undefined && !Number.isFinite(f[k])) throw need(n, `${k} is no number.`);
      return f[k];
    };
    const a = has('minInValue');
    const b = has('maxInValue');
    const x = has('minOutValue');
    const y = has('maxOutValue');
    if (
      (a === undefined) !== (x === undefined) ||
      (b === undefined) !== (y === undefined) ||
      (a === undefined && b === undefined)
    )
      throw need(n, 'Values of a Range come in pairs, minimum in and out, maximum in and out.');
    if (a !== undefined && b !== undefined && !(a < b)) throw need(n, 'The minimum has to lie below the maximum.');
    if (n.style === 'noClamp' && (a === undefined || b === undefined))
      throw need(n, 'A Range that does not clamp needs both pairs.');
    const by = (v: number | undefined, s: number): number | undefined => (v === undefined ? undefined : v / s);
    const step = range(by(a, n.inDepth), by(b, n.inDepth), by(x, n.depth), by(y, n.depth), n.style !== 'noClamp');
    return () => step;
  },
  Exponent: (n) => {
    const style = exponentStyles[n.style];
    if (!style) throw need(n, `"${n.style.slice(0, 30)}" is no style of an Exponent.`);
    const step = channels(
      byChannel(n, (p) => {
        const g = numberOf(n, p, 'exponent', null);
        const o = numberOf(n, p, 'offset', 0);
        if (g < 0.01 || g > 100 || o < 0 || o > 0.9 || (n.style.startsWith('mon') && g < 1))
          throw need(n, `An exponent of ${g} with an offset of ${o} is outside what the format allows.`);
        return style(g, o);
      }),
    );
    return () => step;
  },
  ASC_CDL: (n) => {
    const names: Record<string, string> = {
      '': 'Fwd',
      'v1.2_Fwd': 'Fwd',
      'v1.2_Rev': 'Rev',
      noClampFwd: 'FwdNoClamp',
      noClampRev: 'RevNoClamp',
    };
    const style = cdlStyles[names[n.style] ?? n.style];
    if (!style) throw need(n, `"${n.style.slice(0, 30)}" is no style of an ASC_CDL.`);
    const triple = (k: string, fallback: number): number[] => {
      const l = n.lists[k] ?? [fallback, fallback, fallback];
      if (
        l.length !== 3 ||
        l.some((v) => !Number.isFinite(v) || (k !== 'Offset' && v < 0) || (k === 'Power' && v <= 0))
      )
        throw need(n, `${k} needs three numbers that are allowed.`);
      return l;
    };
    const saturation = n.fields.Saturation ?? 1;
    if (!(saturation >= 0) || !Number.isFinite(saturation))
      throw need(n, 'Saturation needs one number, not below zero.');
    const step = style({
      id: '',
      description: '',
      slope: triple('Slope', 1),
      offset: triple('Offset', 0),
      power: triple('Power', 1),
      saturation,
    });
    return () => step;
  },
  Log: (n) => {
    const style = logStyles[n.style];
    const camera = n.style.startsWith('camera');
    const plain = !n.style.includes('Lin') && !n.style.startsWith('lin');
    if (!style) throw need(n, `"${n.style.slice(0, 30)}" is no style of a Log.`);
    if (!n.params.length && plain) n.params.push({});
    const step = channels(
      byChannel(n, (p) =>
        style({
          base: numberOf(n, p, 'base', 2),
          logSlope: numberOf(n, p, 'logSideSlope', 1),
          logOffset: numberOf(n, p, 'logSideOffset', 0),
          linSlope: numberOf(n, p, 'linSideSlope', 1),
          linOffset: numberOf(n, p, 'linSideOffset', 0),
          linBreak: camera ? numberOf(n, p, 'linSideBreak', null) : null,
          linearSlope: camera && p.linearSlope ? numberOf(n, p, 'linearSlope', null) : null,
        } satisfies LogParams),
      ),
    );
    return () => step;
  },
};
function stepOf(n: Node): Maker {
  return makers[n.kind]!(n);
}
