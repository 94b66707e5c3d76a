/**
 * Reading the Common LUT Format (SMPTE ST 2136-1): the chain of process nodes as functions, and, where one LUT node is all
 * there is but for a Range before it, its table. A LUT3D's blue index runs fastest in the file.
 */
import { Problem } from '../problem';
import { decodeXml, strictParser } from '../xml';
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

/** A number of an array; infinities are words of the format. */
function tableNumber(word: string): number {
  if (!/^[+-]?(inf|infinity)$/i.test(word)) return Number(word);
  return word.startsWith('-') ? -Infinity : Infinity;
}

/** What the first node takes, where it says so. */
function domainOf({ kind, half, style, fields, inDepth }: Node): { min: number; max: number } | null {
  if ((kind === 'LUT1D' && !half) || kind === 'LUT3D') return { min: 0, max: 1 };
  const { minInValue, maxInValue } = fields;
  if (kind !== 'Range' || style === 'noClamp' || minInValue === undefined || maxInValue === undefined) return null;
  return { min: minInValue / inDepth, max: maxInValue / inDepth };
}

type Attribute = (name: string) => string;
type Fault = ReturnType<typeof strictParser>['fault'];

function openNode(kind: string, attribute: Attribute, where: string, fault: Fault): Node {
  const depth = scale[attribute('outBitDepth')];
  const inDepth = scale[attribute('inBitDepth') || '32f'];
  if (!depth || !inDepth) {
    const wrong = attribute(depth ? 'inBitDepth' : 'outBitDepth');
    throw fault('clf-depth', `"${wrong.slice(0, 20)}" is no bit depth.`, again);
  }
  return {
    kind,
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
    where,
  };
}

/** Which dimensions an array may have, by the kind of its node. */
const legalDimensions: Record<string, (d: number[]) => boolean> = {
  LUT3D: (d) => d.length === 4 && d[0] === d[1] && d[0] === d[2] && d[3] === 3,
  LUT1D: (d) => d.length === 2 && (d[1] === 3 || d[1] === 1),
  Matrix: (d) => (d.length === 2 || (d.length === 3 && d[2] === 3)) && d[0] === 3 && (d[1] === 3 || d[1] === 4),
};

function openArray(node: Node, dim: string, fault: Fault): void {
  const dimensions = dim.trim().split(/\s+/).map(Number);
  const isLegal = Object.hasOwn(legalDimensions, node.kind) && legalDimensions[node.kind]!(dimensions);
  if (!isLegal || dimensions.some((n) => !Number.isInteger(n)))
    throw fault('clf-dim', `"${dim.slice(0, 30)}" are no dimensions of a ${node.kind}.`, again);
  const size = dimensions[0]!;
  const limit = node.kind === 'LUT3D' ? 256 : 65536;
  if (node.kind !== 'Matrix' && (size < 2 || size > limit))
    throw fault('clf-size', `A ${node.kind} of ${size} points is not legal: 2 to ${limit} are.`, again);
  if (node.half && size !== 65536)
    throw fault('clf-size', `A table over half-floats has 65,536 entries, not ${size}.`, again);
  node.dims = dimensions;
  node.size = node.kind === 'Matrix' ? null : size;
  const counted = dimensions.length === 3 ? dimensions.slice(0, 2) : dimensions;
  node.numbers = new Float64Array(counted.reduce((a, b) => a * b, 1));
}

/** Numbers into the array, which must not hold more than its dim says. */
function putNumbers(node: Node, words: string[], fault: Fault): void {
  for (const word of words) {
    if (word === '') continue;
    const v = tableNumber(word);
    if (!Number.isFinite(v) && !node.half)
      throw fault('clf-number', `"${word.slice(0, 24)}" is not a number that a table can hold.`, again);
    if (node.filled >= node.numbers.length)
      throw fault(
        'clf-count',
        `The array holds more than the ${node.numbers.length} numbers that its dim says.`,
        again,
      );
    node.numbers[node.filled++] = v;
  }
}

/** Elements beside process nodes that say nothing of the color. */
const DESCRIPTIONS = ['Description', 'InputDescriptor', 'OutputDescriptor', 'Info'];

/** Reads a process list. Counts must be what `dim` says; what the format does not know is refused by name. */
export function readClf(bytes: Uint8Array): ClfFile {
  const { parser, fault } = strictParser('CLF file');
  const out = { id: '', name: '', description: '' };
  const nodes: Node[] = [];
  const path: string[] = [];
  let node: Node | null = null;
  let text = '';
  const fill = (target: Node, chunk: string, end: boolean): void => {
    // numbers may be cut by the parser's chunks: the last word is kept until it is whole
    const words = (text + chunk).split(/\s+/);
    text = end ? '' : (words.pop() ?? '');
    putNumbers(target, words, fault);
  };
  const openChild = (name: string, attribute: Attribute): void => {
    if (CLF_NODES.includes(name)) {
      if (nodes.length >= 50) throw fault('clf-nodes', 'The chain has more than 50 nodes.', again);
      node = openNode(name, attribute, `node ${nodes.length + 1} (${name}), line ${parser.line}`, fault);
      nodes.push(node);
    } else if (!DESCRIPTIONS.includes(name))
      throw fault(
        'clf-node',
        `A process node "${name.slice(0, 40)}" is not one of the format's.`,
        `The format has ${CLF_NODES.join(', ')}.`,
      );
  };
  parser.on('opentag', (tag) => {
    if (path.length >= 20) throw fault('xml-depth', 'Elements are nested more than 20 deep.', again);
    path.push(tag.local);
    const attribute = (n: string): string => tag.attributes[n]?.value ?? '';
    if (path.length === 1) {
      if (tag.local !== 'ProcessList') throw fault('clf-root', 'This is no process list.', again);
      out.id = attribute('id');
      out.name = attribute('name');
    } else if (path.length === 2) openChild(tag.local, attribute);
    else if (node && tag.local === 'IndexMap')
      throw fault(
        'clf-index-map',
        'An index map was taken out of the format with its second version.',
        'Export the look anew as version 3 or later.',
      );
    else if (node && tag.local === 'Array') openArray(node, attribute('dim'), fault);
    else if (node && (tag.local === 'ExponentParams' || tag.local === 'LogParams'))
      node.params.push(Object.fromEntries(Object.values(tag.attributes).map((a) => [a.name, a.value])));
  });
  parser.on('text', (text) => {
    const at = path[path.length - 1]!;
    if (node && at === 'Array') fill(node, text, false);
    else if (node && path.length >= 3) {
      if (text.trim()) {
        const list = text.trim().split(/\s+/).map(Number);
        node.fields[at] = list[0]!;
        node.lists[at] = list;
      }
    } else if (path.length === 2 && at === 'Description')
      out.description = (out.description + text).trim().slice(0, 2000);
  });
  parser.on('closetag', (tag) => {
    if (node && tag.local === 'Array') {
      fill(node, '', true);
      if (node.filled < node.numbers.length)
        throw fault('clf-count', `The array ends after ${node.filled} of ${node.numbers.length} numbers.`, again);
    }
    if (node && path.length === 2) node = null;
    path.pop();
  });
  parser.write(decodeXml(bytes, 'CLF file')).close();
  if (!nodes.length)
    throw new Problem('clf-empty', 'The process list has no node that the format knows.', 'ProcessList', again);
  const steps = nodes.map(stepOf);
  const first = nodes[0]!;

  const domain = domainOf(first);
  return {
    ...out,
    nodes: nodes.map((n) => ({ kind: n.kind, size: n.size, style: n.style })),
    domain,
    look: singleTable(nodes, out.name),
    program: (fallback) => inTurn(steps.map((step) => step(fallback))),
  };
}

/** Steps one after the other, in place. */
const inTurn =
  (steps: Step[]): Step =>
  (values) => {
    for (const step of steps) step(values);
  };

/** One LUT, alone or behind a Range that maps its input onto 0…1. */
function singleTable(nodes: Node[], title: string): Look | null {
  const luts = nodes.filter((n) => n.kind === 'LUT1D' || n.kind === 'LUT3D');
  const lut = luts[0];
  const node = nodes.length === 2 && nodes[0]!.kind === 'Range' ? nodes[0]! : null;
  if (luts.length !== 1 || !lut || lut.half || nodes.length !== (node ? 2 : 1)) return null;
  const fields = node?.fields;
  if (
    node &&
    fields &&
    !(
      fields.minOutValue === 0 &&
      fields.maxOutValue === node.depth &&
      fields.minInValue! < fields.maxInValue! &&
      node.style !== 'noClamp'
    )
  )
    return null;
  return tableOf(
    lut,
    title,
    node && fields
      ? {
          min: [0, 0, 0].map(() => fields.minInValue! / node.inDepth),
          max: [0, 0, 0].map(() => fields.maxInValue! / node.inDepth),
        }
      : undefined,
  );
}

function tableOf(node: Node, title: string, domain = { min: [0, 0, 0], max: [1, 1, 1] }): Look {
  const size = node.size!;
  const one = node.kind === 'LUT1D';
  /** one column serves all channels */
  const curvePlace = (i: number, c: number): number => (node.dims[1] === 1 ? i : i * 3 + c);
  /** the file has blue fastest, we have red */
  const cubePlace = (i: number): number =>
    ((i % size) * size + (Math.floor(i / size) % size)) * size + Math.floor(i / (size * size));
  const table = new Float32Array((one ? size : size ** 3) * 3);
  for (let i = 0; i < table.length / 3; i++)
    for (let c = 0; c < 3; c++) {
      const from = one ? curvePlace(i, c) : cubePlace(i) * 3 + c;
      table[i * 3 + c] = node.raw ? halfValue(node.numbers[from]!) : node.numbers[from]! / node.depth;
    }
  const interpolation =
    node.interpolation === 'trilinear' || node.interpolation === 'tetrahedral' ? node.interpolation : undefined;
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
function byChannel<T>(node: Node, make: (p: Record<string, string>) => T): T[] {
  const all = node.params.find((p) => !p.channel);
  const of = (c: string): Record<string, string> | undefined => node.params.find((p) => p.channel === c) ?? all;
  return ['R', 'G', 'B'].map((character) => {
    const params = of(character);
    if (!params) throw need(node, `There are no parameters for channel ${character}.`);
    return make(params);
  });
}
const numberOf = (node: Node, params: Record<string, string>, name: string, fallback: number | null): number => {
  const value = params[name] === undefined || params[name] === '' ? fallback : Number(params[name]);
  if (value === null || !Number.isFinite(value)) throw need(node, `${name} is missing or no number.`);
  return value;
};

type Maker = (fallback: Interpolation) => Step;
const makers: Record<string, (n: Node) => Maker> = {
  LUT1D: (node) => {
    const size = node.size ?? 0;
    const table = new Float64Array(size * 3);
    if (!size) throw need(node, 'The node has no array.');
    for (let i = 0; i < size; i++)
      for (let c = 0; c < 3; c++) {
        const v = node.numbers[node.dims[1] === 1 ? i : i * 3 + c]!;
        table[i * 3 + c] = node.raw ? halfValue(v) : v / node.depth;
      }
    const step = node.half ? lutHalf(table) : lut1d(table, size);
    return () => step;
  },
  LUT3D: (node) => {
    if (!node.size) throw need(node, 'The node has no array.');
    const look = tableOf(node, '');
    return (fallback) => lut3d(look, look.interpolation ?? fallback);
  },
  Matrix: (node) => {
    if (!node.dims.length) throw need(node, 'The node has no array.');
    const columns = node.dims[1]!;
    const k = node.inDepth / node.depth;
    const rows = Array.from({ length: 9 }, (_, i) => node.numbers[Math.floor(i / 3) * columns + (i % 3)]! * k);
    const offset = [0, 1, 2].map((r) => (columns === 4 ? node.numbers[r * 4 + 3]! / node.depth : 0));
    const step = matrix(rows, offset);
    return () => step;
  },
  Range: (node) => {
    const fields = node.fields;
    const has = (key: string): number | undefined => {
      if (fields[key] !== undefined && !Number.isFinite(fields[key])) throw need(node, `${key} is no number.`);
      return fields[key];
    };
    const minIn = has('minInValue');
    const maxIn = has('maxInValue');
    const minOut = has('minOutValue');
    const maxOut = has('maxOutValue');
    if (
      (minIn === undefined) !== (minOut === undefined) ||
      (maxIn === undefined) !== (maxOut === undefined) ||
      (minIn === undefined && maxIn === undefined)
    )
      throw need(node, 'Values of a Range come in pairs, minimum in and out, maximum in and out.');
    if (minIn !== undefined && maxIn !== undefined && !(minIn < maxIn))
      throw need(node, 'The minimum has to lie below the maximum.');
    if (node.style === 'noClamp' && (minIn === undefined || maxIn === undefined))
      throw need(node, 'A Range that does not clamp needs both pairs.');
    const by = (v: number | undefined, s: number): number | undefined => (v === undefined ? undefined : v / s);
    const step = range(
      by(minIn, node.inDepth),
      by(maxIn, node.inDepth),
      by(minOut, node.depth),
      by(maxOut, node.depth),
      node.style !== 'noClamp',
    );
    return () => step;
  },
  Exponent: (node) => {
    const style = exponentStyles[node.style];
    if (!style) throw need(node, `"${node.style.slice(0, 30)}" is no style of an Exponent.`);
    const step = channels(
      byChannel(node, (params) => {
        const g = numberOf(node, params, 'exponent', null);
        const offset = numberOf(node, params, 'offset', 0);
        if (g < 0.01 || g > 100 || offset < 0 || offset > 0.9 || (node.style.startsWith('mon') && g < 1))
          throw need(node, `An exponent of ${g} with an offset of ${offset} is outside what the format allows.`);
        return style(g, offset);
      }),
    );
    return () => step;
  },
  ASC_CDL: (node) => {
    const names: Record<string, string> = {
      '': 'Fwd',
      'v1.2_Fwd': 'Fwd',
      'v1.2_Rev': 'Rev',
      noClampFwd: 'FwdNoClamp',
      noClampRev: 'RevNoClamp',
    };
    const style = cdlStyles[names[node.style] ?? node.style];
    if (!style) throw need(node, `"${node.style.slice(0, 30)}" is no style of an ASC_CDL.`);
    const triple = (key: string, fallback: number): number[] => {
      const list = node.lists[key] ?? [fallback, fallback, fallback];
      if (
        list.length !== 3 ||
        list.some((v) => !Number.isFinite(v) || (key !== 'Offset' && v < 0) || (key === 'Power' && v <= 0))
      )
        throw need(node, `${key} needs three numbers that are allowed.`);
      return list;
    };
    const saturation = node.fields.Saturation ?? 1;
    if (!(saturation >= 0) || !Number.isFinite(saturation))
      throw need(node, 'Saturation needs one number, not below zero.');
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
  Log: (node) => {
    const style = logStyles[node.style];
    const camera = node.style.startsWith('camera');
    const plain = !node.style.includes('Lin') && !node.style.startsWith('lin');
    if (!style) throw need(node, `"${node.style.slice(0, 30)}" is no style of a Log.`);
    if (!node.params.length && plain) node.params.push({});
    const step = channels(
      byChannel(node, (params) =>
        style({
          base: numberOf(node, params, 'base', 2),
          logSlope: numberOf(node, params, 'logSideSlope', 1),
          logOffset: numberOf(node, params, 'logSideOffset', 0),
          linSlope: numberOf(node, params, 'linSideSlope', 1),
          linOffset: numberOf(node, params, 'linSideOffset', 0),
          linBreak: camera ? numberOf(node, params, 'linSideBreak', null) : null,
          linearSlope: camera && params.linearSlope ? numberOf(node, params, 'linearSlope', null) : null,
        } satisfies LogParams),
      ),
    );
    return () => step;
  },
};
function stepOf(node: Node): Maker {
  return makers[node.kind]!(node);
}
