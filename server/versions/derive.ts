/** Other forms of an item: looks as tables, chains and ICC profiles and back; camera profiles as ICC input profiles, or edited. Each is a new draft that knows its source. */
import type { InferType } from 'yup';
import { LOOK_FORMS, PROFILE_FORMS, versionEndpoints } from '@/core/api/versions';
import { must } from '@/core/must';
import { edit, split } from '@/core/camera/edit';
import { profileOf, readDcp, writeDcp } from '@/core/camera/dcp';
import { cameraProfileFacts } from '@/core/camera/facts';
import { toAbstract, toDeviceLink, toInputProfile } from '@/core/icc/convert';
import { readAnyLook } from '@/core/icc/look';
import {
  identity,
  residual,
  sampler,
  selvedge,
  tableOfProgram,
  writeClf,
  writeCubeBytes,
  type Residual,
} from '@/core/look';
import { recognise } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../activity/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { createItem } from '../items/create';
import * as q from '../items/queries';
import { versionFor } from '../items/service';

export type Form = (typeof LOOK_FORMS)[number] | (typeof PROFILE_FORMS)[number];

type Asked = InferType<(typeof versionEndpoints)['POST /api/versions/:id/derive']['body']>;
type Measured = Pick<Residual, 'maxDeltaE' | 'p95DeltaE' | 'meanDeltaE'>;
interface Made {
  bytes: Uint8Array;
  extension: string;
  kind: 'look' | 'camera-profile';
  /** of the table against its source; null where nothing is approximated */ residual: Measured | null;
  said: string;
}

const created = (): Date => new Date();

async function ofLook(bytes: Uint8Array, asked: Asked): Promise<Made> {
  const program = await readAnyLook(bytes);
  const evaluate = program.evaluate('tetrahedral', 1);
  const about = {
    title: asked.title,
    created: created(),
    grid: asked.form === 'icc-abstract' ? Math.min(65, asked.points) : asked.points,
  };
  if (asked.form === 'icc-link') {
    const made = await toDeviceLink(evaluate, about);
    return { ...made, extension: 'icc', kind: 'look', said: `ICC device link, ${asked.points} points` };
  }
  if (asked.form === 'icc-abstract') {
    const made = await toAbstract(evaluate, about);
    return { ...made, extension: 'icc', kind: 'look', said: `ICC abstract profile, ${about.grid} points` };
  }
  const own =
    program.look &&
    program.look.kind === '3d' &&
    program.look.size === asked.points &&
    program.look.domain.min.every((v) => v === 0) &&
    program.look.domain.max.every((v) => v === 1)
      ? program.look
      : null;
  const base = identity(asked.points);
  const table = own ?? { ...base, table: tableOf(evaluate, asked.points) };
  const look = { ...table, title: asked.title };
  const error = residual(evaluate, sampler(look));
  return asked.form === 'cube'
    ? {
        bytes: writeCubeBytes(look),
        extension: 'cube',
        kind: 'look',
        residual: error,
        said: `table of ${asked.points} points`,
      }
    : {
        bytes: new TextEncoder().encode(writeClf(look, asked.title)),
        extension: 'clf',
        kind: 'look',
        residual: error,
        said: `Common LUT Format, ${asked.points} points`,
      };
}
function tableOf(evaluate: ReturnType<typeof sampler>, n: number): Float32Array {
  const out = new Float32Array(n ** 3 * 3);
  const values = new Float64Array(3);
  for (let b = 0, i = 0; b < n; b++)
    for (let g = 0; g < n; g++)
      for (let r = 0; r < n; r++, i += 3) {
        evaluate(r / (n - 1), g / (n - 1), b / (n - 1), values, 0);
        out.set(values, i);
      }
  return out;
}

async function ofProfile(bytes: Uint8Array, asked: Asked): Promise<Made> {
  const dcp = readDcp(bytes);
  const edited = (profile: typeof dcp, said: string): Made => ({
    bytes: writeDcp(edit(profile, { name: asked.title })),
    extension: 'dcp',
    kind: 'camera-profile',
    residual: null,
    said,
  });
  switch (asked.form) {
    case 'icc-input': {
      const made = await toInputProfile(profileOf(dcp), asked.kelvin, {
        title: asked.title,
        created: created(),
        grid: asked.points,
      });
      return {
        ...made,
        extension: 'icc',
        kind: 'camera-profile',
        said: `ICC input profile at ${asked.kelvin} K, ${asked.points} points`,
      };
    }
    case 'without-look':
      return edited(edit(dcp, { drop: ['look'] }), 'without its look table');
    case 'without-map':
      return edited(edit(dcp, { drop: ['hue-sat'] }), 'without its hue and saturation map');
    case 'straight':
      return edited(edit(dcp, { curve: 'linear' }), 'with a straight tone curve');
    case 'editor-curve':
      return edited(edit(dcp, { curve: 'editor' }), 'without a tone curve: each editor puts its own');
    case 'first-light':
      return edited(split(dcp, 0), 'for its first light alone');
    case 'second-light':
      return edited(split(dcp, 1), 'for its second light alone');
    default:
      return edited(edit(dcp, { camera: asked.camera }), `for ${asked.camera}: to be proved on a frame of that camera`);
  }
}

async function make(
  person: Person,
  versionId: string,
  input: unknown,
): Promise<{ v: Awaited<ReturnType<typeof versionFor>>; asked: Asked; made: Made }> {
  allow(person, 'item.convert');
  const typed = checked(versionEndpoints['POST /api/versions/:id/derive'].body, input);
  const version = await versionFor(person, versionId);
  const asked = { ...typed, title: typed.title || version.title };
  const bytes = new Uint8Array(await getBlob(version.sha256));
  if (version.kind === 'look' && (LOOK_FORMS as readonly string[]).includes(asked.form))
    return { v: version, asked, made: await ofLook(bytes, asked) };
  if (
    version.kind === 'camera-profile' &&
    version.format === 'dcp' &&
    (PROFILE_FORMS as readonly string[]).includes(asked.form)
  )
    return { v: version, asked, made: await ofProfile(bytes, asked) };
  throw new Problem(
    'derive-form',
    `${version.title} cannot become that.`,
    version.title,
    version.kind === 'preset' ? 'Convert the preset into a look first.' : 'Choose another form.',
  );
}

export interface DerivedView {
  said: string;
  bytes: number;
  residual: Measured | null;
}
/** What would be made, with its error, without keeping it. */
export async function previewDerived(person: Person, versionId: string, input: unknown): Promise<DerivedView> {
  const { made } = await make(person, versionId, input);
  return {
    said: made.said,
    bytes: made.bytes.length,
    residual: made.residual && {
      maxDeltaE: made.residual.maxDeltaE,
      p95DeltaE: made.residual.p95DeltaE,
      meanDeltaE: made.residual.meanDeltaE,
    },
  };
}

/** Makes the other form an item of its own, a draft beside its source, with lineage; the licence has to allow it. */
export async function derive(
  person: Person,
  versionId: string,
  input: unknown,
): Promise<{ itemId: string; versionId: string }> {
  const { v: version, asked, made } = await make(person, versionId, input);
  const source = must(await q.itemById(pool(), version.item_id, person.id));
  await allowUnderLicence(person, source, 'convert');
  const name = `${asked.title}.${made.extension}`;
  const recognised = recognise(name, made.bytes, await descriptors());
  const facts = made.extension === 'dcp' ? cameraProfileFacts(made.bytes) : recognised.facts;
  const cameras = asked.form === 'other-camera' ? [asked.camera] : source.cameras;
  const threads =
    made.kind === 'look' ? selvedge(sampler(tableOfProgram(await readAnyLook(made.bytes)))) : version.selvedge;
  return transaction(async (sql) => {
    const out = await createItem(sql, actorOf(person), {
      kind: made.kind,
      title: asked.title,
      headings: source.headings,
      shelfId: source.shelf_id,
      supplier: source.supplier,
      licenceId: source.licence_id,
      source: source.source,
      origin: source.origin,
      creator: source.creator,
      rights: source.rights,
      sha: await putBlob(sql, Buffer.from(made.bytes)),
      fileName: name,
      format: recognised.format,
      facts: { ...facts, cameras, ...(made.residual ? { tableError: made.residual } : {}) },
      selvedge: threads,
      notes: `${made.said}, made from ${source.title}`,
    });
    if (made.kind === 'look' && version.encoding) await q.setEncoding(sql, out.versionId, version.encoding, person.id);
    await q.insertLineage(sql, out.versionId, version.id, {
      tool: 'derive',
      ...asked,
      ...(made.residual ? { tableError: made.residual } : {}),
    });
    await record(
      sql,
      actorOf(person),
      'item',
      out.itemId,
      'made in another form',
      { source: version.id },
      { title: asked.title, form: asked.form },
    );
    return out;
  });
}
