/** What Etagere foretells, held against what the stand-in editors do with real files on their desks. */
import { must } from '@/core/must';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { parseDescriptor, editorKey, type Descriptor } from '@/core/editor/descriptor';
import type { System } from '@/core/editor/place-schema';
import { render } from '@/core/editor/rendition';
import { deriveProfile } from '@/core/camera/derived';
import { writeDcp } from '@/core/camera/dcp';
import { frameFacts } from '@/core/frame/metadata';
import { fromFunction, writeCube } from '@/core/look';
import { foretell, type ItemSide, type PhotoSide } from '@/core/records/foretell';
import { explainPhotos } from '@/core/records/photos';
import { resolveTemplate } from '@/core/sync/place-templates';
import { cameras } from '@/demo/cameras/cameras';
import { lensDatabase } from '@/demo/cameras/gear';
import { profileFor } from '@/demo/cameras/profiles';
import { smallDng } from '@/demo/testing/small-dng';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { runEditor, type Catalogue } from './testing/run-editor';

const root = mkdtempSync(join(tmpdir(), 'etagere-desk-'));
const editors = [marlstone3, marlstone4, oxbow2].map((d) => parseDescriptor(d));
const system: Record<string, System> = { marlstone: 'macos', oxbow: 'linux' };
const put = (path: string, bytes: Uint8Array | string): void => {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), bytes);
};
const dng = (maker: string, model: string, serial = '1'): Uint8Array =>
  smallDng(maker, model, { serial, lens: 'Perrin 50 mm f/2' });
/** The serial of a body that was converted; its files bear the plain one's name. */
const RED = 'PA-2';
const photos: Record<string, () => Promise<Uint8Array> | Uint8Array> = {
  'Alder.dng': () => dng('Perrin', 'Perrin Alder'),
  'Alder in red.dng': () => dng('Perrin', 'Perrin Alder', RED),
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
/** Profiles of one camera each, by title; the second is for the converted body of the same model. */
const bodies = {
  'Alder Standard': 'Perrin Alder',
  'Alder Standard in red': 'Perrin Alder, infrared',
  'Ondine Standard': 'Ondine 40',
} as const;
type ProfileTitle = keyof typeof bodies;
const profiles = Object.keys(bodies) as ProfileTitle[];

async function profileOf(title: ProfileTitle, format: string): Promise<Uint8Array> {
  const camera = must(cameras.find(({ unique }) => unique === bodies[title].split(',')[0]));
  const profile = writeDcp(profileFor(camera, null, title));
  if (format === 'dcp') return profile;
  return (
    await deriveProfile(profile, {
      form: 'icc-input',
      title,
      kelvin: 5000,
      camera: '',
      neutral: null,
      points: 17,
      created: new Date(0),
    })
  ).bytes;
}
const catalogues = new Map<string, Catalogue>();

const placeOf = (descriptor: Descriptor, { place }: { place: string }): string => {
  const at = must(system[descriptor.editor]);
  return resolveTemplate(must(must(descriptor.places[place])[at]), at);
};

/** As a rollout puts them: below the place, in the folder of the body. */
async function putProfiles(descriptor: Descriptor): Promise<void> {
  const accepts = descriptor.accepts.find(({ kind }) => kind === 'camera-profile');
  if (!accepts) return;
  const folder = placeOf(descriptor, accepts);
  for (const title of profiles)
    put(`${folder}/${bodies[title]}/${title}${accepts.extension}`, await profileOf(title, must(accepts.formats?.[0])));
  const list = resolveTemplate(
    must(descriptor.listing[must(system[descriptor.editor])]),
    must(system[descriptor.editor]),
  );
  const support = descriptor.accepts.find(({ kind }) => kind === 'support-file');
  const lists = support ? placeOf(descriptor, support) : dirname(list);
  put(`${lists}/bodies.txt`, `# told apart by their serials\n${RED} = Perrin Alder, infrared\n`);
}

function putLenses(descriptor: Descriptor): void {
  const accepts = descriptor.accepts.find(({ kind }) => kind === 'lens-database');
  if (accepts) put(`${placeOf(descriptor, accepts)}/Saltmarsh.xml`, lensDatabase());
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
    await putProfiles(descriptor);
    putLenses(descriptor);
    catalogues.set(editorKey(descriptor), await runEditor(root, must(system[descriptor.editor]), descriptor));
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
    body: name === 'Alder in red.dng' ? 'Perrin Alder, infrared' : photo.camera,
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
          .listed.filter(({ kind }) => kind === 'look')
          .map((l) => l.title)
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
  test.each(cases.flatMap((c) => profiles.map((title) => [...c, title] as const)))(
    '%s, %s and the profile “%s”: offered exactly where we foretell it',
    (key, name, title) => {
      const descriptor = must(editors.find((one) => editorKey(one) === key));
      const accepts = descriptor.accepts.find(({ kind }) => kind === 'camera-profile');
      const { listed, cards } = must(catalogues.get(key));
      const path = listed.find((one) => one.path.includes(`/${title}.`))?.path ?? 'listed nowhere';
      const offered = must(cards.find((card) => card.path === `Pictures/${name}`)).offers.includes(path);
      const side: ItemSide = {
        ...item('Open to all'),
        title,
        kind: 'camera-profile',
        format: accepts?.formats?.[0] ?? 'dcp',
        cameras: [bodies[title]],
      };
      const foretold = foretell(side, photoSide(name), {
        descriptor,
        system: must(system[descriptor.editor]),
        placed: { state: 'listed', reason: '' },
        lists: null,
      });
      expect(foretold.answer).toBe(offered ? 'yes' : 'no');
    },
  );
  test('an infrared profile is offered for the infrared body, by those that read it, and for no other', () => {
    const takers = [...catalogues.values()].flatMap(({ cards }) =>
      cards.filter(({ offers }) => offers.some((path) => path.includes('in red'))).map(({ path }) => path),
    );
    expect(takers).toEqual(['Pictures/Alder in red.dng', 'Pictures/Alder in red.dng']);
  });
  test('a lens database is listed, and tells by which of its lenses a photo is corrected', () => {
    const { listed, cards } = must(catalogues.get('oxbow@2'));
    expect(listed.filter(({ kind }) => kind === 'lens-database')).toHaveLength(1);
    expect(cards.find(({ path }) => path === 'Pictures/Alder.dng')?.calibration).toBe(
      'Perrin 50 mm f/2 of Oxbow/Lenses/Saltmarsh.xml',
    );
    expect(cards.find(({ path }) => path === 'Pictures/Export.jpg')?.calibration).toBe('');
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
