/**
 * Renditions: the bytes that a version becomes for an editor, as its descriptor's writer says. Deterministic: the same
 * version, descriptor and code give the same bytes.
 */
import { zipSync, strToU8 } from 'fflate';
import { writeClf } from '../look/clf-write';
import { writeCubeBytes } from '../look/cube';
import type { Look } from '../look/look';
import type { Residual } from '../look/residual';
import { reexpress } from '../look/resample';
import { Problem } from '../problem';
import type { Accepts, SizeRule, TableWriter } from './descriptor';

/** Raised whenever the bytes that we write change for the same input. */
export const RENDITION_CODE = 1;

export interface RenditionSource {
  title: string;
  headings: string[];
  position: number;
  scope: unknown;
  encoding: unknown;
  look?: Look;
  bytes: Uint8Array;
  id: string;
}
export interface Rendition {
  bytes: Uint8Array;
  residual: Residual | null;
  size: number | null;
}

/** Points an axis for a source of a size under a rule. */
export function sizeUnder(rule: SizeRule, source: number): number {
  if (rule.exact) return rule.exact;
  const low = rule.min ?? 2;
  const high = rule.max ?? 256;
  return source >= low && source <= high ? source : Math.min(high, Math.max(low, rule.prefer ?? source));
}

function table(writer: TableWriter, source: RenditionSource): { bytes: Uint8Array; residual: Residual; size: number } {
  if (!source.look)
    throw new Problem(
      'rendition-kind',
      'Only a look can be written as a table.',
      source.title,
      'Convert the item into a look first.',
    );
  const size = sizeUnder(writer.size, source.look.kind === '1d' ? (writer.size.prefer ?? 33) : source.look.size);
  const { look, residual } = reexpress(source.look, writer.encoding, size);
  look.title = source.title;
  return { bytes: writer.codec === 'cube' ? writeCubeBytes(look) : strToU8(writeClf(look, source.id)), residual, size };
}

/** Replaces "{name}" values of a JSON template by fields of the source. */
function fill(template: unknown, source: RenditionSource): unknown {
  if (typeof template === 'string') {
    const match = /^\{(title|headings|position|scope|encoding|id)\}$/.exec(template);
    return match ? source[match[1] as 'title'] : template;
  }
  if (Array.isArray(template)) return template.map((t) => fill(t, source));
  if (template && typeof template === 'object')
    return Object.fromEntries(Object.entries(template).map(([k, v]) => [k, fill(v, source)]));
  return template;
}

export function render(accepts: Accepts, source: RenditionSource): Rendition {
  const { writer } = accepts;
  if (writer.asIs) return { bytes: source.bytes, residual: null, size: null };
  if (writer.table) {
    const made = table(writer.table, source);
    return { bytes: made.bytes, residual: made.residual, size: made.size };
  }
  let residual: Residual | null = null;
  let size: number | null = null;
  const files: Record<string, Uint8Array> = {};
  for (const member of writer.archive!.members) {
    if (member.table) {
      const ofMember = table(member.table, source);
      residual = ofMember.residual;
      size = ofMember.size;
      files[member.name] = ofMember.bytes;
    } else files[member.name] = strToU8(JSON.stringify(fill(member.json ?? {}, source), null, 1) + '\n');
  }
  // a fixed date, so that the same version always gives the same bytes
  return { bytes: zipSync(files, { level: 6, mtime: new Date(Date.UTC(2000, 0, 1, 12)) }), residual, size };
}
