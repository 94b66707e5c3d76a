/** Looks for color or for black and white alone: what is foretold of them, and what the editor offers for real photos. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { parseDescriptor } from '@/core/editor/descriptor';
import { render } from '@/core/editor/rendition';
import { fromFunction } from '@/core/look';
import { must } from '@/core/must';
import { foretell, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { runEditor, type Catalogue } from './testing/run-editor';

const root = mkdtempSync(join(tmpdir(), 'etagere-suits-'));
const descriptor = parseDescriptor(tessel7);
const look = fromFunction(9, 'Look', (values) => {
  values[0] = must(values[0]) ** 1.1;
});
const results = ['color', 'monochrome', null] as const;
type Result = (typeof results)[number];
const nameOf = (result: Result): string => result ?? 'open';
const photos = {
  'color.png': 'color',
  'gray.png': 'monochrome',
  'color.jpg': 'color',
  'gray.jpg': 'monochrome',
} as const;
let catalogue: Catalogue;

async function photo(name: keyof typeof photos): Promise<Buffer> {
  const picture = sharp({ create: { width: 8, height: 8, channels: 3, background: '#a86' } });
  const toned = photos[name] === 'monochrome' ? picture.grayscale().toColourspace('b-w') : picture;
  return name.endsWith('.png') ? toned.png().toBuffer() : toned.jpeg().toBuffer();
}
const put = (path: string, bytes: Uint8Array | string): void => {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), bytes);
};

beforeAll(async () => {
  const accepts = must(descriptor.accepts.find(({ kind }) => kind === 'look'));
  const panes = results.map((result) => {
    const scope = { input: null, result };
    const id = nameOf(result);
    const source = { title: id, headings: [], position: 0, scope, encoding: null, look, bytes: new Uint8Array(), id };
    return [id, JSON.parse(new TextDecoder().decode(render(accepts, source).bytes)) as unknown];
  });
  const named = Object.fromEntries(panes) as Record<string, unknown>;
  const bundle = { tessel: 7, desk: { opened: 0 }, presets: {}, panes: named, chosen: {} };
  put('AppData/Roaming/Tessel/tessel.json', JSON.stringify(bundle));
  for (const name of Object.keys(photos) as (keyof typeof photos)[]) put(`Pictures/${name}`, await photo(name));
  catalogue = await runEditor(root, 'windows', descriptor);
});
afterAll(() => rmSync(root, { recursive: true, force: true }));

const itemOf = (result: Result): ItemSide => ({
  title: nameOf(result),
  kind: 'look',
  format: 'cube',
  status: 'approved',
  archived: false,
  away: '',
  cameras: [],
  input: null,
  result,
  needs: [],
});
const photoOf = (name: keyof typeof photos): PhotoSide => ({
  name,
  camera: { maker: '', model: '', names: [] },
  body: '',
  kind: 'rendered',
  range: 'SDR',
  result: photos[name],
});

test('all of them are listed', () => {
  expect(catalogue.refused).toEqual([]);
  expect(
    catalogue.listed
      .filter(({ kind }) => kind === 'look')
      .map(({ title }) => title)
      .sort(),
  ).toEqual(['color', 'monochrome', 'open']);
});

test.each(Object.keys(photos) as (keyof typeof photos)[])('for %s it is offered what was foretold', (name) => {
  const { offers } = must(catalogue.cards.find(({ path }) => path === `Pictures/${name}`));
  for (const result of results) {
    const path = `AppData/Roaming/Tessel/tessel.json#panes/${nameOf(result)}`;
    const side = { descriptor, system: 'windows' as const, placed: { state: 'listed', reason: '' }, lists: [] };
    const { answer } = foretell(itemOf(result), photoOf(name), side);
    expect([nameOf(result), offers.includes(path)]).toEqual([nameOf(result), answer === 'yes']);
  }
  expect(offers).toContain('AppData/Roaming/Tessel/tessel.json#panes/open');
});

test('a look that happens to give gray is offered for photos in color too, and that is said', () => {
  const side = { descriptor, system: 'windows' as const, placed: { state: 'listed', reason: '' }, lists: [] };
  const foretold = foretell({ ...itemOf(null), gives: 'monochrome' }, photoOf('color.png'), side);
  expect(foretold.answer).toBe('yes');
  expect(foretold.findings.map(({ code, words }) => [code, words])).toEqual([
    ['scope-result', 'It gives monochrome; the photo is worked in color; Tessel 7 offers it all the same'],
  ]);
});
