/** What Etagere foretells, held against what the stand-in editors do with real files on their desks. */
import { must } from '@/core/must';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { parseDescriptor, editorKey, type Descriptor, type System } from '@/core/editor/descriptor';
import { render } from '@/core/editor/rendition';
import { writeDng } from '@/core/frame/dng';
import { frameFacts } from '@/core/frame/metadata';
import { fromFunction, writeCube } from '@/core/look';
import { foretell, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import { explainPhotos } from '@/core/records/photos';
import { resolveTemplate } from '@/core/sync/place-templates';
import { cameras, neutralUnder } from '@/demo/cameras/cameras';
import { profileFor } from '@/demo/cameras/profiles';
import { daylight } from '@/demo/cameras/spectra';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';

interface Card {
  path: string;
  card: 'shown' | 'empty';
  reason: string;
  offers: string[];
}
interface Catalogue {
  listed: { path: string; title: string }[];
  refused: { path: string; reason: string }[];
  cards: Card[];
}
const root = mkdtempSync(join(tmpdir(), 'etagere-desk-'));
const editors = [marlstone3, marlstone4, oxbow2].map((d) => parseDescriptor(d));
const light = daylight(5600);
const system: Record<string, System> = { marlstone: 'macos', oxbow: 'linux' };
const put = (path: string, bytes: Uint8Array | string): void => {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), bytes);
};
const dng = (maker: string, model: string): Uint8Array =>
  writeDng({
    width: 8,
    height: 8,
    cfa: [0, 1, 1, 2],
    mosaic: new Uint16Array(64).fill(4000),
    black: 512,
    white: 16383,
    neutral: neutralUnder(must(cameras[0]), light),
    maker,
    model,
    unique: model,
    serial: '1',
    lens: '',
    focal: 50,
    aperture: 8,
    iso: 100,
    date: '2026:10:14 11:20:00',
    profile: profileFor(must(cameras[0]), null, 'x'),
    jpeg: null,
  });
const photos: Record<string, () => Promise<Uint8Array> | Uint8Array> = {
  'Alder.dng': () => dng('Perrin', 'Perrin Alder'),
  'Ley.dng': () => dng('Corvane', 'Corvane Ley'),
  'Ley II.dng': () => dng('Corvane', 'Corvane Ley II'),
  'Ondine.dng': () => dng('Ondine', 'Ondine 40'),
  'Export.jpg': () =>
    sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
      .jpeg()
      .withExif({ IFD0: { Make: 'Corvane', Model: 'Corvane Ley II' } })
      .toBuffer(),
};
const inputs = { 'Open to all': null, 'Camera data only': 'camera data', 'Rendered only': 'rendered SDR' } as const;
const look = fromFunction(9, 'Look', (values) => {
  values[0] = must(values[0]) ** 1.1;
});
const catalogues = new Map<string, Catalogue>();

/** Starts the program as its station does, waits for its list, ends it. */
async function run(descriptor: Descriptor): Promise<Catalogue> {
  const at = must(system[descriptor.editor]);
  const list = join(root, resolveTemplate(must(descriptor.listing[at]), at));
  const child = spawn(
    process.execPath,
    [`dist/standins/${descriptor.editor}.mjs`, '--root', root, '--system', at, '--edition', descriptor.version],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  await new Promise<void>((done, fail) => {
    child.stdout.once('data', () => done());
    child.once('exit', (c) => fail(new Error(`ended with ${c}`)));
  });
  const out = JSON.parse(readFileSync(list, 'utf8')) as Catalogue;
  child.removeAllListeners('exit');
  await new Promise((done) => {
    child.once('exit', done);
    child.kill();
  });
  return out;
}
beforeAll(async () => {
  for (const [name, make] of Object.entries(photos)) put(`Pictures/${name}`, await make());
  for (const descriptor of editors) {
    const accepts = must(descriptor.accepts.find((x) => x.kind === 'look'));
    const folder = resolveTemplate(
      must(must(descriptor.places[accepts.place])[must(system[descriptor.editor])]),
      must(system[descriptor.editor]),
    );
    for (const [title, input] of Object.entries(inputs))
      put(
        `${folder}/${title}${accepts.extension}`,
        render(accepts, {
          title,
          headings: [],
          position: 0,
          scope: { input, result: null },
          encoding: null,
          look,
          bytes: new TextEncoder().encode(writeCube(look)),
          id: title,
        }).bytes,
      );
    catalogues.set(editorKey(descriptor), await run(descriptor));
  }
});
afterAll(() => {
  rmSync(root, { recursive: true, force: true });
});

const seen = (name: string) => {
  const facts = must(frameFacts(new Uint8Array(readFileSync(join(root, 'Pictures', name)))));
  return {
    maker: facts.maker,
    camera: facts.camera,
    unique: facts.uniqueModel,
    n: 1,
    kind: facts.format === 'dng' ? ('camera data' as const) : ('rendered' as const),
  };
};
const photoSide = (name: string): PhotoSide => {
  const photo = seen(name);
  return {
    name,
    camera: { maker: photo.maker, model: photo.camera, names: [] },
    body: photo.camera,
    kind: photo.kind,
    range: photo.kind === 'rendered' ? 'SDR' : null,
    result: null,
  };
};
const item = (title: keyof typeof inputs): ItemSide => ({
  title,
  kind: 'look',
  format: 'cube',
  status: 'approved',
  archived: false,
  away: '',
  cameras: [],
  input: inputs[title],
  result: null,
  needs: [],
});
const cases = editors.flatMap((d) => Object.keys(photos).map((name) => [editorKey(d), name] as const));

describe('what the editors show', () => {
  test('they read the looks that were placed', () => {
    for (const descriptor of editors)
      expect(
        must(catalogues.get(editorKey(descriptor)))
          .listed.map((l) => l.title)
          .sort(),
        descriptor.title,
      ).toEqual(Object.keys(inputs).sort());
  });
  test.each(cases)('%s and %s: a card is empty exactly where we say so', (key, name) => {
    const descriptor = must(editors.find((x) => editorKey(x) === key));
    const card = must(must(catalogues.get(key)).cards.find((c) => c.path === `Pictures/${name}`));
    const said = must(
      must(
        explainPhotos(
          [seen(name)],
          [
            {
              key,
              editor: descriptor.editor,
              title: descriptor.title,
              cameras: descriptor.cameras ?? null,
              stations: 1,
            },
          ],
        )[0],
      ).answers[0],
    );
    expect(said.answer).toBe(card.card === 'shown' ? 'yes' : 'no');
    if (card.card === 'empty') expect(card.reason).toContain(seen(name).camera);
  });
  test.each(
    cases.flatMap((c) => (Object.keys(inputs) as (keyof typeof inputs)[]).map((title) => [...c, title] as const)),
  )('%s, %s and the look “%s”: offered exactly where we foretell it', (key, name, title) => {
    const descriptor = must(editors.find((x) => editorKey(x) === key));
    const cat = must(catalogues.get(key));
    const path = must(cat.listed.find((l) => l.title === title)).path;
    const offered = must(cat.cards.find((c) => c.path === `Pictures/${name}`)).offers.includes(path);
    expect(
      foretell(item(title), photoSide(name), {
        descriptor,
        system: must(system[descriptor.editor]),
        placed: { state: 'listed', reason: '' },
        lists: null,
      }).answer,
    ).toBe(offered ? 'yes' : 'no');
  });
  test('both answers occur, or nothing would be tested', () => {
    const all = [...catalogues.values()].flatMap((c) => c.cards);
    expect(new Set(all.map((c) => c.card))).toEqual(new Set(['shown', 'empty']));
    expect(all.some((c) => c.card === 'shown' && c.offers.length < 3)).toBe(true);
  });
  test('empty cards stand in the log, with their reason', () => {
    expect(existsSync(join(root, 'Library/Application Support/.marlstone-3/refused.log'))).toBe(true);
    expect(readFileSync(join(root, 'Library/Application Support/.marlstone-3/refused.log'), 'utf8')).toContain(
      'Pictures/Ley.dng: Corvane Ley is not supported by Marlstone 3',
    );
  });
});
