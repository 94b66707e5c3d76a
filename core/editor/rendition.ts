/**
 * Renditions: the bytes that a version becomes for an editor, as its descriptor's writer says. Deterministic: the same
 * version, descriptor and code give the same bytes.
 */
import { zipSync, strFromU8, strToU8 } from 'fflate';
import { writeClf } from '../look/clf-write';
import { writeCubeBytes } from '../look/cube';
import { writeHaldPng } from '../look/hald-file';
import type { Look } from '../look/look';
import type { Residual } from '../look/residual';
import { reexpress } from '../look/resample';
import { Problem } from '../problem';
import { canonical } from '../sync/bundle';
import type { Accepts, EntryWriter, SizeRule, TableWriter } from './accepts';

/** Raised whenever the bytes that we write change for the same input. */
export const RENDITION_CODE = 2;

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
  return { bytes: codecs[writer.codec](look, source.id), residual, size };
}

const codecs: Record<TableWriter['codec'], (look: Look, id: string) => Uint8Array> = {
  cube: writeCubeBytes,
  clf: (look, id) => strToU8(writeClf(look, id)),
  hald: writeHaldPng,
};

/** Replaces "{name}" values of a JSON template by fields of the source, "{table}" by the table as base64. */
function fill(template: unknown, source: RenditionSource & { table?: string }): unknown {
  if (typeof template === 'string') {
    const match = /^\{(title|headings|position|scope|encoding|id|table)\}$/.exec(template);
    return match ? source[match[1] as 'title'] : template;
  }
  if (Array.isArray(template)) return template.map((t) => fill(t, source));
  if (template && typeof template === 'object')
    return Object.fromEntries(Object.entries(template).map(([k, v]) => [k, fill(v, source)]));
  return template;
}

/** An entry in its canonical form, as agents compare it with what lies in a bundle. */
function entry(writer: EntryWriter, source: RenditionSource): Rendition {
  if (writer.asIs) return { bytes: canonical(jsonOf(source)), residual: null, size: null };
  const made = writer.table ? table(writer.table, source) : null;
  const filled = fill(writer.json, { ...source, ...(made ? { table: base64(made.bytes) } : {}) });
  return { bytes: canonical(filled), residual: made?.residual ?? null, size: made?.size ?? null };
}

function jsonOf({ bytes, title }: RenditionSource): unknown {
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    throw new Problem(
      'rendition-kind',
      'Only what is written in JSON can become an entry of a bundle as it is.',
      title,
      'Convert the item for this editor first.',
    );
  }
}

/** A sign a byte, as `btoa` takes them. */
const base64 = (bytes: Uint8Array): string => btoa(strFromU8(bytes, true));

export function render(accepts: Accepts, source: RenditionSource): Rendition {
  const { writer } = accepts;
  if (writer.entry) return entry(writer.entry, source);
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
