/**
 * The records of a lens database and what differs between two releases of it: each child of the root, told apart by what it
 * is, its maker, model or name, and its mount; the same where its whole content is, whatever the order of attributes.
 */
import { decodeXml, strictParser } from '../xml';
import { calibrations } from './calibrated';
import { lensName } from './name';
import { checkRoot } from './facts';
import { movement, type Movement } from './movement';

export interface LensRecord {
  /** "lens", "camera", "mount" */ what: string;
  name: string;
  content: string;
  series: number;
  samples: number;
}
export interface LensChange {
  what: string;
  name: string;
  /** series and samples, in words */ before: string;
  after: string;
}
export interface LensDifference {
  added: LensChange[];
  /** with how far they differ, where both calibrate the lens at a setting that either was measured at */
  changed: (LensChange & { moved: Movement | null })[];
  gone: LensChange[];
  same: number;
}

const MOST = 50_000;
const DEPTH = 20;

export function lensRecords(bytes: Uint8Array): LensRecord[] {
  const { parser, fault } = strictParser('lens database');
  const out: LensRecord[] = [];
  const twice = new Map<string, number>();
  let depth = 0;
  let now: LensRecord | null = null;
  let text: string[] = [];
  parser.on('opentag', (tag) => {
    if (++depth > DEPTH)
      throw fault('xml-depth', `Elements are nested more than ${DEPTH} deep.`, 'Ask the supplier for the file again.');
    const attribute = (n: string): string => tag.attributes[n]?.value.trim() ?? '';
    if (depth === 1) {
      checkRoot(tag);
      return;
    }
    if (depth === 2) {
      if (out.length >= MOST)
        throw fault(
          'lens-count',
          `More than ${MOST.toLocaleString('en')} records are not read.`,
          'Split the database by maker.',
        );
      const model = attribute('model') || attribute('name');
      const name = [lensName({ maker: attribute('maker'), model }).trim(), attribute('mount')]
        .filter(Boolean)
        .join(', ');
      out.push((now = { what: tag.local, name, content: '', series: 0, samples: 0 }));
      text = [];
    }
    if (now) {
      if (tag.local === 'series') now.series++;
      else if (tag.local === 'sample') now.samples++;
    }
    text.push(
      `<${tag.local}${Object.values(tag.attributes)
        .filter((x) => x.prefix !== 'xmlns' && x.name !== 'xmlns')
        .map((x) => ` ${x.name}=${JSON.stringify(x.value.trim())}`)
        .sort()
        .join('')}>`,
    );
  });
  parser.on('text', (words) => {
    if (depth > 1 && words.trim()) text.push(JSON.stringify(words.trim()));
  });
  parser.on('closetag', () => {
    text.push('/');
    if (depth-- === 2 && now) {
      now.content = text.join('');
      // a second calibration of one lens is a record of its own
      const key = `${now.what} ${now.name}`;
      const count = (twice.get(key) ?? 0) + 1;
      twice.set(key, count);
      if (count > 1) now.name = `${now.name} (${count})`;
      now = null;
    }
  });
  parser.write(decodeXml(bytes, 'lens database')).close();
  return out;
}

const words = (record: LensRecord | undefined): string => {
  if (!record) return '';
  if (record.series) return `${record.series} series, ${record.samples} ${record.samples === 1 ? 'sample' : 'samples'}`;
  return 'named';
};

/** Where the n-th lens of a database stands among its records. */
const lensesByKey = (bytes: Uint8Array, keys: readonly string[]) => {
  const { lenses } = calibrations(bytes);
  return new Map(keys.map((key, n) => [key, lenses[n]]));
};

/** Record by record; each list in the order of its own release. */
export function lensDifference(older: Uint8Array, newer: Uint8Array): LensDifference {
  const key = (r: LensRecord): string => `${r.what} ${r.name.toLowerCase()}`;
  const ofLenses = (records: LensRecord[]): string[] => records.filter(({ what }) => what === 'lens').map(key);
  const [olderRecords, newerRecords] = [lensRecords(older), lensRecords(newer)];
  const before = new Map(olderRecords.map((r) => [key(r), r]));
  const after = new Map(newerRecords.map((r) => [key(r), r]));
  const calibratedBefore = lensesByKey(older, ofLenses(olderRecords));
  const calibratedAfter = lensesByKey(newer, ofLenses(newerRecords));
  const moved = (key: string): Movement | null => {
    const [one, other] = [calibratedBefore.get(key), calibratedAfter.get(key)];
    return one && other ? movement(one, other) : null;
  };
  const out: LensDifference = { added: [], changed: [], gone: [], same: 0 };
  for (const [name, lensRecord] of after) {
    const was = before.get(name);
    const line = { what: lensRecord.what, name: lensRecord.name, before: words(was), after: words(lensRecord) };
    if (!was) out.added.push(line);
    else if (was.content !== lensRecord.content) out.changed.push({ ...line, moved: moved(name) });
    else out.same++;
  }
  for (const [k, r] of before)
    if (!after.has(k)) out.gone.push({ what: r.what, name: r.name, before: words(r), after: '' });
  return out;
}
