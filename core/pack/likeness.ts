/**
 * How alike an incoming file and one that is held are, apart from their bytes: names stripped of release and variant
 * marks, content in a canonical form, settings compared one by one.
 */
import { split, type ClassOverrides } from '../preset/bake';
import type { Settings } from '../preset/kinds';
import { allSettings } from '../preset/settings';

/** What a name says of the variant of a design that the file is. */
export type VariantMark = 'for rendered files' | 'for camera data' | 'older format';
const marks: [VariantMark, RegExp][] = [
  ['for rendered files', /\b(rendered|jpe?g|non[- ]?raw|tiff?|sdr)\b/i],
  ['for camera data', /\b(camera data|raw|dng)\b/i],
  ['older format', /\b(legacy|older|old|classic)\b/i],
];
const release = /\b(?:v(?:er(?:sion)?)?\.?\s*\d+(?:\.\d+)*|r\d+|rev(?:ision)?\.?\s*\d+|\d+\.\d+)\b/gi;
const copies = /\b(?:copy|kopie)(?:\s*\d+)?\b|\(\d+\)/gi;

export interface DesignName {
  base: string;
  mark: VariantMark | null;
  release: string;
}

/** "Kiln Dusk v2 (JPEG)" → base "kiln dusk", for rendered files, release "v2". The folder may carry the mark too. */
export function designName(title: string, folder = ''): DesignName {
  const found = title.match(release)?.[0] ?? '';
  let base = title
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[_+]/g, ' ')
    .replace(release, ' ')
    .replace(copies, ' ');
  let mark: VariantMark | null = null;
  for (const [variantMark, pattern] of marks)
    if (pattern.test(base)) {
      const without = base.replace(new RegExp(pattern.source, 'gi'), ' ');
      if (/[a-z0-9]/i.test(without)) {
        mark ??= variantMark;
        base = without;
      }
    }
  if (!mark)
    for (const [variantMark, pattern] of marks)
      if (folder.split('/').some((f) => pattern.test(f.replace(/[_+-]/g, ' ')))) mark ??= variantMark;
  return {
    base: base
      .replace(/[()[\]–—-]+/g, ' ')
      .replace(/\s+/g, ' ')
      .trim()
      .toLowerCase(),
    mark,
    release: found.trim(),
  };
}

/** Names as people compare them: case, accents, spaces, dashes and underscores aside. */
export const foldName = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[\s_\-–—.]+/g, ' ')
    .trim();

const sorted = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(sorted);
  if (value && typeof value === 'object')
    return Object.fromEntries(
      Object.keys(value)
        .sort()
        .map((k) => [k, sorted((value as Record<string, unknown>)[k])]),
    );
  if (typeof value === 'number') return Math.round(value * 1e6) / 1e6;
  return value;
};

/** A preset's content whatever the order or the container: settings, references, and what no mapping knows. Without names. */
export function canonicalPreset(facts: { settings?: unknown; references?: unknown; unknown?: unknown }): string {
  return JSON.stringify(
    sorted({ settings: facts.settings ?? {}, references: facts.references ?? [], unknown: facts.unknown ?? {} }),
  );
}

/** The part of a preset that no table carries, in canonical form: presets alike in effect are copies only where it is the same. */
export function outsideTable(facts: { settings?: unknown; classes?: unknown; references?: unknown }): string {
  const settings = (facts.settings ?? {}) as Settings;
  const left = split(settings, (facts.classes ?? {}) as ClassOverrides).left.map((l) => l.setting);
  return left.length || (facts.references as unknown[] | undefined)?.length
    ? JSON.stringify(
        sorted({
          settings: Object.fromEntries(left.map((id) => [id, settings[id]])),
          references: facts.references ?? [],
        }),
      )
    : '';
}

/** Only what is alike in this can do the same: presets in what no table carries, camera profiles in their camera. */
export function beyondEffect(kind: string, facts: Record<string, unknown>): string {
  if (kind === 'preset') return outsideTable(facts);
  return kind === 'camera-profile' && typeof facts.camera === 'string' ? facts.camera : '';
}

export interface SettingChange {
  setting: string;
  title: string;
  before: unknown;
  after: unknown;
}

/** The settings that differ, in their documented order. */
export function settingChanges(before: Settings, after: Settings): SettingChange[] {
  return allSettings.flatMap((setting) => {
    const was = before[setting.id];
    const is = after[setting.id];
    return JSON.stringify(sorted(was ?? null)) === JSON.stringify(sorted(is ?? null))
      ? []
      : [{ setting: setting.id, title: setting.title, before: was ?? null, after: is ?? null }];
  });
}

/** Share of the settings of either that are the same in both, 0…1. */
export function settingLikeness(one: Settings, other: Settings): number {
  const ids = new Set([...Object.keys(one), ...Object.keys(other)]);
  if (!ids.size) return 0;
  const changed = settingChanges(one, other).length;
  return 1 - changed / ids.size;
}

/** Likeness of two names by pairs of letters (Dice's coefficient), 0…1. */
export function nameLikeness(one: string, other: string): number {
  const pairs = (text: string): Map<string, number> => {
    const counts = new Map<string, number>();
    const plain = foldName(text).replace(/ /g, '');
    for (let i = 0; i < plain.length - 1; i++)
      counts.set(plain.slice(i, i + 2), (counts.get(plain.slice(i, i + 2)) ?? 0) + 1);
    return counts;
  };
  const ofOne = pairs(one);
  const ofOther = pairs(other);
  let both = 0;
  let all = 0;
  for (const [key, n] of ofOne) {
    both += Math.min(n, ofOther.get(key) ?? 0);
    all += n;
  }
  for (const n of ofOther.values()) all += n;
  return all ? (2 * both) / all : 0;
}

/** Where what the file says of itself and its name or folder differ, each a sentence. */
export function mismatches(path: string, facts: { fileTitle?: unknown; fileHeadings?: unknown }): string[] {
  const parts = path.split('/');
  const name = parts.pop()!.replace(/\.[^.]+$/, '');
  const out: string[] = [];
  const title = typeof facts.fileTitle === 'string' ? facts.fileTitle.trim() : '';
  if (title && foldName(title) !== foldName(name))
    out.push(`Inside it is titled “${title}”, its file name says “${name}”.`);
  const headings = Array.isArray(facts.fileHeadings) ? facts.fileHeadings.map(String).filter(Boolean) : [];
  const folder = parts[parts.length - 1];
  if (headings.length && folder && !headings.some((h) => foldName(h) === foldName(folder)))
    out.push(`Inside it stands under “${headings.join(' / ')}”, its folder is “${folder}”.`);
  return out;
}
