/**
 * Writes an item's title and headings into its file, and nothing else: every other byte stays as it came. By the container
 * of the format; where to is data (an editor's mapping), not code.
 */
import { zipSync } from 'fflate';
import { readDcp, setText, writeDcp } from '../camera/dcp';
import { T } from '../camera/tags';
import { editorKey, type Descriptor } from '../editor/descriptor';
import { describeIcc } from '../icc/describe';
import { member, memberNames } from '../look/archive';
import { Problem } from '../problem';
import { escapeXml } from '../text';

const cannot = (what: string): Problem =>
  new Problem(
    'write-format',
    `Etagere cannot write a title into ${what}.`,
    'format',
    'The item bears its title all the same, and files made for editors carry it.',
  );
const latin = {
  decode: (b: Uint8Array): string => {
    let s = '';
    for (let i = 0; i < b.length; i += 8192) s += String.fromCharCode(...b.subarray(i, i + 8192));
    return s;
  },
  encode: (s: string): Uint8Array => Uint8Array.from(s, (c) => c.charCodeAt(0)),
};
/** Text to the bytes that it has as UTF-8, each as one character: files are edited byte for byte. */
const utf8 = (s: string): string => latin.decode(new TextEncoder().encode(s));
const line = (s: string): string => utf8(s.replace(/[\r\n]+/g, ' '));
const attribute = (s: string): string => utf8(escapeXml(s.replace(/[\r\n]+/g, ' ')));
// a replacement text has no special signs
const put = (s: string, pattern: RegExp, by: (...m: string[]) => string): string | null =>
  pattern.test(s) ? s.replace(pattern, by) : null;

function cube(s: string, title: string): string {
  const written = `TITLE "${line(title.replace(/"/g, "'"))}"`;
  const eol = s.includes('\r\n') ? '\r\n' : '\n';
  return put(s, /^TITLE[ \t]+.*?(?=\r?$)/m, () => written) ?? written + eol + s;
}

function rootAttribute(s: string, root: string, name: string, value: string): string {
  const open = new RegExp(`<(?:[\\w-]+:)?${root}\\b[^>]*>`).exec(s);
  if (!open) throw cannot('this file: its root is not where it should be');
  const tag = open[0];
  const changed =
    put(tag, new RegExp(`(\\s${name}\\s*=\\s*)("[^"]*"|'[^']*')`), (_, a) => `${a}"${attribute(value)}"`) ??
    tag.replace(/\s*(\/?>)$/, (e) => ` ${name}="${attribute(value)}"${e.trimStart()}`);
  return s.slice(0, open.index) + changed + s.slice(open.index + tag.length);
}

function iniKey(s: string, section: string, key: string, value: string): string {
  const at = new RegExp(`^\\[${section.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\][ \\t]*\\r?$`, 'm').exec(s);
  if (!at) throw cannot('this file: its section is not there');
  const from = at.index + at[0].length;
  const rest = s.slice(from);
  const end = /^\[/m.exec(rest)?.index ?? rest.length;
  const part = rest.slice(0, end);
  const eol = s.includes('\r\n') ? '\r\n' : '\n';
  const changed =
    put(part, new RegExp(`^([ \\t]*${key}[ \\t]*=[ \\t]*).*?(?=\\r?$)`, 'm'), (_, a) => a + line(value)) ??
    `${eol}${key}=${line(value)}${part}`;
  return s.slice(0, from) + changed + rest.slice(end);
}

function xmp(s: string, title: string, headings: string[]): string {
  const titled = put(
    s,
    /(<dc:title>[\s\S]*?<rdf:li[^>]*>)([\s\S]*?)(<\/rdf:li>)/,
    (_, a, _b, c) => a + attribute(title) + c,
  );
  if (!titled) throw cannot('this packet: it has no place for a title');
  return (
    put(
      titled,
      /(<dc:subject>\s*<rdf:(?:Bag|Seq)>)([\s\S]*?)(<\/rdf:(?:Bag|Seq)>)/,
      (_, a, _b, c) => a + headings.map((h) => `<rdf:li>${attribute(h)}</rdf:li>`).join('') + c,
    ) ?? titled
  );
}

export function writeTitle(
  format: string,
  bytes: Uint8Array,
  title: string,
  headings: string[],
  descriptors: readonly Descriptor[],
): Uint8Array {
  const s = latin.decode(bytes);
  const d = descriptors.find((x) => editorKey(x) === format);
  const m = d?.presets?.mapping;
  if (format === 'cube') return latin.encode(cube(s, title));
  if (format === 'dcp') {
    const dcp = readDcp(bytes);
    setText(dcp, T.name, title.slice(0, 400));
    return writeDcp(dcp);
  }
  if (format === 'icc') return describeIcc(bytes, title);
  if (format === 'clf') return latin.encode(rootAttribute(s, 'ProcessList', 'name', title));
  if (bytes[0] === 0x50 && bytes[1] === 0x4b && d) {
    const about = d.accepts.flatMap((a) => a.writer.archive?.members ?? []).find((x) => x.json);
    if (!about) throw cannot('this archive');
    const files: Record<string, Uint8Array> = {};
    for (const name of memberNames(bytes) ?? []) {
      const m = member(bytes, name);
      if (m) files[name] = m;
    }
    let json: Record<string, unknown>;
    try {
      json = JSON.parse(new TextDecoder().decode(files[about.name])) as typeof json;
    } catch {
      throw cannot('this archive: what it says of itself is no JSON');
    }
    for (const [k, v] of Object.entries(about.json!))
      if (v === '{title}') json[k] = title;
      else if (v === '{headings}') json[k] = headings;
    files[about.name] = new TextEncoder().encode(JSON.stringify(json, null, 1) + '\n');
    return zipSync(files, { level: 6, mtime: new Date(Date.UTC(2000, 0, 1, 12)) });
  }
  if (!d?.presets) throw cannot(`a file of the format ${format}`);
  if (d.presets.container === 'xmp') return latin.encode(xmp(s, title, headings));
  if (!m?.title) throw cannot(`presets of ${d.title}`);
  const set = (text: string, at: { step: string; attribute: string }, value: string): string =>
    d.presets!.container === 'ini'
      ? iniKey(text, at.step, at.attribute, value)
      : rootAttribute(text, at.step, at.attribute, value);
  const titled = set(s, m.title, title);
  return latin.encode(m.headings ? set(titled, m.headings, headings.join(m.headings.separator)) : titled);
}
