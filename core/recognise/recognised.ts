/** What is said of a file whose kind is known, and what formats look at to say it. */
import { acceptedKinds, type AcceptedKind } from '../editor/accepted-kinds';
import type { Descriptor } from '../editor/descriptor';
import { rangeOf, type Look } from '../look/look';
import { checkLook } from '../look/soundness';

/** What an item can be: all that some editor may take. */
export const takeable = acceptedKinds;
export type ItemKind = AcceptedKind;
export type Kind = ItemKind | 'frame' | 'chart' | 'descriptor' | 'document' | 'unknown';
export const isTakeable = (kind: string): kind is ItemKind => (takeable as readonly string[]).includes(kind);

/** The format of charts that went through an editor and came back. */
export const EDITOR_CHART = 'editor-chart';

export interface Recognised {
  kind: Kind;
  format: string;
  title: string;
  headings: string[];
  /** looks and profiles that it refers to */ needs: { kind: string; name: string }[];
  /** what it is, in a few words */ note: string;
  /** 0…1 */ confidence: number;
  /** what speaks for it */ evidence: string[];
  /** facts by kind, kept with the version; `caution` is what a person should know before it is taken */ facts: Record<
    string,
    unknown
  >;
  /** the table, where it was read on the way; not kept */ look?: Look;
}

export interface SeenFile {
  path: string;
  bytes: Uint8Array;
  /** the first 8 KB, a character a byte */ start: string;
  /** of its name, in small letters, without the dot */ extension: string;
  descriptors: readonly Descriptor[];
}

/** A format: how a file of it is known, and what is read of it. */
export interface Format {
  id: string;
  /** null for a file of another format; throws a Problem for one that says what it is and is broken */
  find: (file: SeenFile) => Recognised | null;
}

const HEAD_BYTES = 8192;

export const baseName = (path: string): string => (path.split('/').pop() ?? path).replace(/\.[^.]+$/, '');

export const seen = (path: string, bytes: Uint8Array, descriptors: readonly Descriptor[]): SeenFile => ({
  path,
  bytes,
  start: new TextDecoder('latin1').decode(bytes.subarray(0, HEAD_BYTES)),
  extension: (/\.([^./]+)$/.exec(path)?.[1] ?? '').toLowerCase(),
  descriptors,
});

/** With all that is usual; a title comes from the file's name, the evidence is the note, unless they are said. */
export const recognised = (
  file: SeenFile,
  kind: Kind,
  format: string,
  note: string,
  more: Partial<Recognised> = {},
): Recognised => ({
  kind,
  format,
  title: baseName(file.path),
  headings: [],
  needs: [],
  note,
  facts: {},
  confidence: 1,
  evidence: [note],
  ...more,
});

const MOST_COMMENTS = 20;

/** Facts of a table; throws a Problem for one that is none to look with. */
export function lookFacts(look: Look): Record<string, unknown> {
  checkLook(look);
  return {
    kind: look.kind,
    size: look.size,
    domain: look.domain,
    range: rangeOf(look),
    fileTitle: look.title,
    comments: look.comments.slice(0, MOST_COMMENTS),
    warnings: look.warnings,
  };
}

/** "3D table of 33 points". */
export const tableNote = (look: Look): string => `${look.kind.toUpperCase()} table of ${look.size} points`;

const MOST_HEADINGS = 4;
/** Headings from JSON that anybody may have written. */
export const headingsIn = (value: unknown): string[] =>
  Array.isArray(value) ? value.map(String).slice(0, MOST_HEADINGS) : [];
