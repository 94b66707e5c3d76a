/**
 * Writes an item's title and headings into its file, and nothing else: every other byte stays as it came. By the container
 * of the format; where to is data (an editor's mapping), not code.
 */
import { zipSync } from 'fflate';
import { readDcp, setText, writeDcp } from '../camera/dcp';
import { read } from '../camera/tags';
import { editorKey, type Descriptor } from '../editor/descriptor';
import { describeIcc } from '../icc/describe';
import { member, memberNames } from '../look/archive';
import { CONTACT_NAMESPACE_END, contactProperty, type Identity } from '../item/identity';
import { openPreset, type About } from '../preset/container';
import { OWN_LANGUAGE } from '../preset/settings';
import { writeAbout } from '../preset/write';
import { Problem } from '../problem';
import { decodeText, encodeText, escapeXml, markOf } from '../text';
import { decodeXml, encodeXml } from '../xml';

const cannot = (what: string): Problem =>
  new Problem(
    'write-format',
    `Etagere cannot write a title into ${what}.`,
    'format',
    'The item keeps its title all the same, and files made for editors carry it.',
  );
/** A text file by what edits its text; every other byte stays as it came, in the encoding that it came in. */
const edited = (bytes: Uint8Array, what: string, edit: (text: string) => string): Uint8Array =>
  encodeText(edit(decodeText(bytes, what)), bytes);
/** The same of XML; where that was in another encoding than UTF-8, it is UTF-8 from then on, and says so. */
const editedXml = (bytes: Uint8Array, what: string, edit: (text: string) => string): Uint8Array =>
  encodeXml(edit(decodeXml(bytes, what)), markOf(bytes));
const line = (s: string): string => s.replace(/[\r\n]+/g, ' ');
const attribute = (s: string): string => escapeXml(line(s));
/** Text as a pattern that finds just that. */
const literally = (s: string): string => s.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
// a replacement text has no special signs
const put = (text: string, pattern: RegExp, by: (...m: string[]) => string): string | null =>
  pattern.test(text) ? text.replace(pattern, by) : null;

function cube(text: string, title: string): string {
  const written = `TITLE "${line(title.replace(/"/g, "'"))}"`;
  const eol = text.includes('\r\n') ? '\r\n' : '\n';
  return put(text, /^TITLE[ \t]+.*?(?=\r?$)/m, () => written) ?? written + eol + text;
}

function rootAttribute(text: string, root: string, name: string, value: string): string {
  const open = new RegExp(`<(?:[\\w-]+:)?${literally(root)}\\b[^>]*>`).exec(text);
  if (!open) throw cannot('this file: its root is not where it should be');
  const tag = open[0];
  const changed =
    put(tag, new RegExp(`(\\s${literally(name)}\\s*=\\s*)("[^"]*"|'[^']*')`), (_, a) => `${a}"${attribute(value)}"`) ??
    tag.replace(/\s*(\/?>)$/, (e) => ` ${name}="${attribute(value)}"${e.trimStart()}`);
  return text.slice(0, open.index) + changed + text.slice(open.index + tag.length);
}

function iniKey(text: string, section: string, key: string, value: string): string {
  const at = new RegExp(`^\\[${literally(section)}\\][ \\t]*\\r?$`, 'm').exec(text);
  if (!at) throw cannot('this file: its section is not there');
  const from = at.index + at[0].length;
  const rest = text.slice(from);
  const end = /^\[/m.exec(rest)?.index ?? rest.length;
  const part = rest.slice(0, end);
  const eol = text.includes('\r\n') ? '\r\n' : '\n';
  const changed =
    put(part, new RegExp(`^([ \\t]*${literally(key)}[ \\t]*=[ \\t]*).*?(?=\\r?$)`, 'm'), (_, a) => a + line(value)) ??
    `${eol}${key}=${line(value)}${part}`;
  return text.slice(0, from) + changed + rest.slice(end);
}

function alternatives(text: string): string {
  return `<rdf:Alt><rdf:li xml:lang="x-default">${text}</rdf:li></rdf:Alt>`;
}

/** The element of a packet that bears a part of the identity: its name, and how its text is wrapped. */
interface PacketElement {
  part: keyof Identity;
  name: string;
  wrap: (text: string) => string;
}
const packetElements: readonly PacketElement[] = [
  { part: 'description', name: 'dc:description', wrap: alternatives },
  { part: 'creator', name: 'dc:creator', wrap: (text) => `<rdf:Seq><rdf:li>${text}</rdf:li></rdf:Seq>` },
  { part: 'rights', name: 'dc:rights', wrap: alternatives },
];

/** Of the address of the rights: there is a place for it in packets that declare the schema of rights management. */
function webStatementIn(text: string): PacketElement[] {
  const prefix = /xmlns:([\w-]+)\s*=\s*["'][^"']*\/rights\/["']/.exec(text)?.[1];
  return prefix ? [{ part: 'webStatement', name: `${prefix}:WebStatement`, wrap: (said) => said }] : [];
}

/** Of the creator's contact: likewise, in packets that declare its schema (IPTC Photo Metadata Standard). */
function contactIn(text: string): PacketElement[] {
  const declared = new RegExp(`xmlns:([\\w-]+)\\s*=\\s*["'][^"']*${CONTACT_NAMESPACE_END}["']`);
  const prefix = declared.exec(text)?.[1];
  const wrap = (said: string) => {
    const name = `${prefix}:${contactProperty(said)}`;
    return `<rdf:Description><${name}>${said}</${name}></rdf:Description>`;
  };
  return prefix ? [{ part: 'contact', name: `${prefix}:CreatorContactInfo`, wrap }] : [];
}

/** Parts that are said are written in place of those that stand there, or behind the title; the others stay as they are. */
function withIdentity(text: string, identity: Partial<Identity>): string {
  let out = text;
  for (const { part, name, wrap } of [...packetElements, ...webStatementIn(text), ...contactIn(text)]) {
    const said = identity[part];
    if (!said) continue;
    const element = `<${name}>${wrap(attribute(said))}</${name}>`;
    out =
      put(out, new RegExp(`<${name}[ >][\\s\\S]*?</${name}>`), () => element) ??
      out.replace('</dc:title>', () => `</dc:title>${element}`);
  }
  return out;
}

function xmp(text: string, title: string, headings: string[], identity: Partial<Identity>): string {
  const titled = put(
    text,
    /(<dc:title>[\s\S]*?<rdf:li[^>]*>)([\s\S]*?)(<\/rdf:li>)/,
    (_, a, _b, c) => a + attribute(title) + c,
  );
  if (!titled) throw cannot('this packet: it has no place for a title');
  const told = withIdentity(titled, identity);
  return (
    put(
      told,
      /(<dc:subject>\s*<rdf:(?:Bag|Seq)>)([\s\S]*?)(<\/rdf:(?:Bag|Seq)>)/,
      (_, a, _b, c) => a + headings.map((h) => `<rdf:li>${attribute(h)}</rdf:li>`).join('') + c,
    ) ?? told
  );
}

/** Common settings as JSON say it beside them. */
function ownSettings(bytes: Uint8Array, { title, headings, identity }: About): Uint8Array {
  const read = JSON.parse(new TextDecoder().decode(bytes)) as Record<string, unknown>;
  const { webStatement, ...others } = identity;
  const said = { ...others, ...(webStatement ? { web: webStatement } : {}) };
  return new TextEncoder().encode(`${JSON.stringify({ ...read, name: title, headings, ...said }, null, 2)}\n`);
}

/** An archive says its title in a JSON member, at the keys that its descriptor names. */
function titleArchive(bytes: Uint8Array, descriptor: Descriptor, title: string, headings: string[]): Uint8Array {
  const about = descriptor.accepts.flatMap((a) => a.writer.archive?.members ?? []).find((x) => x.json);
  if (!about) throw cannot('this archive');
  const files: Record<string, Uint8Array> = {};
  for (const name of memberNames(bytes) ?? []) {
    const data = member(bytes, name);
    if (data) files[name] = data;
  }
  const said = files[about.name];
  if (!said) throw cannot('this archive: it says nothing of itself');
  const open = openPreset('json', said);
  const [whole] = open.steps();
  const values: Record<string, string | string[]> = { '{title}': title, '{headings}': headings };
  for (const [key, template] of Object.entries(about.json!)) {
    const value = values[String(template)];
    if (value !== undefined) whole?.set(key, { text: String(value), json: value });
  }
  files[about.name] = open.bytes();
  return zipSync(files, { level: 6, mtime: new Date(Date.UTC(2000, 0, 1, 12)) });
}

/**
 * The file with another title and headings, all else in it as it was; refused where its format has no place for them. What is
 * said of its identity is written too, where the format has a place: rights in camera and ICC profiles, all of it in packets, the
 * address of the rights where they declare its schema.
 */
export function writeTitle(
  format: string,
  bytes: Uint8Array,
  title: string,
  headings: string[],
  descriptors: readonly Descriptor[],
  identity: Partial<Identity> = {},
): Uint8Array {
  const descriptor = descriptors.find((x) => editorKey(x) === format);
  if (format === 'cube') return edited(bytes, '.cube file', (text) => cube(text, title));
  if (format === 'dcp') {
    const dcp = readDcp(bytes);
    setText(dcp, read.name, title.slice(0, 400));
    if (identity.rights) setText(dcp, read.copyright, identity.rights);
    return writeDcp(dcp);
  }
  if (format === 'icc') return describeIcc(bytes, title, identity.rights ?? '');
  if (format === 'clf')
    return editedXml(bytes, 'CLF file', (text) => rootAttribute(text, 'ProcessList', 'name', title));
  if (format === OWN_LANGUAGE) return ownSettings(bytes, { title, headings, identity });
  if (bytes[0] === 0x50 && bytes[1] === 0x4b && descriptor) return titleArchive(bytes, descriptor, title, headings);
  if (!descriptor) throw cannot(`a file of the format ${format}`);
  return titlePreset(descriptor, bytes, { title, headings, identity });
}

/** A preset in the language of an editor. */
function titlePreset(
  { title: editor, presets }: Descriptor,
  bytes: Uint8Array,
  about: { title: string; headings: string[]; identity: Partial<Identity> },
): Uint8Array {
  if (!presets) throw cannot(`a file of ${editor}`);
  const { title, headings, identity } = about;
  const { container, mapping } = presets;
  if (container === 'json') return writeAbout(presets, bytes, about);
  const what = `preset of ${editor}`;
  if (container === 'xmp') return editedXml(bytes, what, (text) => xmp(text, title, headings, identity));
  if (!mapping.title) throw cannot(`presets of ${editor}`);
  const places = [
    { at: mapping.title, value: title },
    ...(mapping.headings ? [{ at: mapping.headings, value: headings.join(mapping.headings.separator) }] : []),
  ];
  const sayAt = container === 'ini' ? iniKey : rootAttribute;
  const say = (text: string): string =>
    places.reduce((said, { at, value }) => sayAt(said, at.step, at.attribute, value), text);
  return container === 'ini' ? edited(bytes, what, say) : editedXml(bytes, what, say);
}
