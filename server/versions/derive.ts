/** Other forms of an item: looks as tables, chains and ICC profiles and back; camera profiles as ICC input profiles, or edited. Each is a new draft that knows its source. */
import type { InferType } from 'yup';
import { LOOK_FORMS, PROFILE_FORMS, versionEndpoints } from '@/core/api/versions';
import { must } from '@/core/must';
import { cameraProfileFacts } from '@/core/camera/facts';
import type { Residual } from '@/core/look';
import type { LookForm } from '@/core/look/derived';
import { recognise } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../activity/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { compute } from '../threads/computing';
import { createItem, takenOver } from '../items/create';
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

const deriveLookOf = (bytes: Uint8Array, { form, title, points }: Asked & { title: string }) =>
  compute('deriveLook', { bytes, asked: { form: form as LookForm, title, points, created: new Date() } });
const deriveProfileOf = (bytes: Uint8Array, { form, title, points, kelvin, camera }: Asked & { title: string }) =>
  compute('deriveProfile', { bytes, asked: { form, title, points, kelvin, camera, created: new Date() } });

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
    return { v: version, asked, made: { kind: 'look', ...(await deriveLookOf(bytes, asked)) } };
  if (
    version.kind === 'camera-profile' &&
    version.format === 'dcp' &&
    (PROFILE_FORMS as readonly string[]).includes(asked.form)
  )
    return { v: version, asked, made: { kind: 'camera-profile', ...(await deriveProfileOf(bytes, asked)) } };
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
  const threads = made.kind === 'look' ? await compute('selvedge', { bytes: made.bytes }) : version.selvedge;
  return transaction(async (sql) => {
    const out = await createItem(sql, actorOf(person), {
      kind: made.kind,
      title: asked.title,
      headings: source.headings,
      ...takenOver(source),
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
