/** The bench: what its cells are made of, and what is decided on it. */
import type { BodyOf } from '@/core/api';
import { benchEndpoints } from '@/core/api/bench';
import { must } from '@/core/must';
import { isUuid } from '@/core/uuid';
import { v7 } from 'uuid';
import { whiteBalanceOf } from '@/core/bench/white-balance';
import { plainProfile } from '@/core/camera/default-rendering';
import { profileOf, readDcp, writeDcp, type Dcp } from '@/core/camera/dcp';
import { cameraProfileFacts } from '@/core/camera/facts';
import { STAGES, type Stage } from '@/core/camera/render';
import { anchor, checkNeutral, neutralOf, whitePoint, type White } from '@/core/camera/white';
import { bodyOf } from '@/core/frame/body';
import type { Look } from '@/core/look/look';
import { Problem } from '@/core/problem';
import { getBlob, putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { frames } from '../frames/queries';
import { cameraHead } from '../frames/service';
import { createItem } from '../items/create';
import { insertLineage, itemById, versionById } from '../items/queries';
import { allowUnderLicence } from '../licences/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { compute } from '../threads/computing';
import * as q from './queries';
import { sameStyle } from './same-style';

export type { BenchRow, CandidateRow, SetRow } from './queries';

const uuids = (list: string[]): string[] => list.filter(isUuid).slice(0, 64);
/** What may be put on the bench of these versions, in no order. */
export async function candidatesFor(person: Person, versions: string[]): Promise<q.CandidateRow[]> {
  allow(person, 'view');
  return q.candidates(pool(), uuids(versions));
}

/** A bench holds no more columns than these. */
const MOST_ITEMS = 16;

/** More candidates: a shelf's, the same style from other sources, the profiles of cameras, or items. */
export async function moreCandidates(
  person: Person,
  by: { shelf?: string; like?: string; items?: string[]; cameras?: string[] },
): Promise<q.CandidateRow[]> {
  allow(person, 'view');
  if (by.cameras?.length) return q.profilesFor(pool(), by.cameras.slice(0, 20));
  if (by.items) return q.byItems(pool(), uuids(by.items).slice(0, MOST_ITEMS));
  const [id] = uuids([by.shelf ?? by.like ?? '']);
  if (!id) return [];
  if (by.shelf) return q.onShelf(pool(), id, 24);
  return sameStyle(pool(), id, 12);
}

/** The camera's neutral under a white balance; `shot` is the one that the file itself says. */
function neutralUnder(text: string, shot: readonly number[], dcp: Dcp): number[] {
  const white = whiteBalanceOf(text);
  if (white?.by === 'neutral') return checkNeutral(white.neutral);
  if (text.startsWith('n:')) return checkNeutral([]); // which says what a neutral is
  // gray world is told by whoever has the picture, and comes as a neutral then
  if (white?.by === 'file' || white?.by === 'gray world') return [...shot];
  if (white?.by !== 'temperature' || !isWhite(white.kelvin, white.tint))
    throw new Problem(
      'white',
      'A white has 2,000 to 50,000 K and a tint of −150 to 150.',
      text,
      'Correct the temperature.',
    );
  return neutralOf(profileOf(dcp), white.kelvin, white.tint);
}
const isWhite = (kelvin: number, tint: number): boolean => kelvin >= 2000 && kelvin <= 50000 && Math.abs(tint) <= 150;

async function dcpOf(version: string): Promise<{ dcp: Dcp; title: string; itemId: string }> {
  const found = await versionById(pool(), version);
  if (!found) throw new Problem('not-found', 'There is no such version.', version, 'Choose another.');
  if (found.kind !== 'camera-profile' || found.format !== 'dcp')
    throw new Problem('profile-kind', `${found.title} is no DNG camera profile.`, found.title, 'Take one of those.');
  return { dcp: readDcp(new Uint8Array(await getBlob(found.sha256))), title: found.title, itemId: found.item_id };
}

/** The bytes of an ICC input profile, null for a version that is none. */
async function iccInput(version: string): Promise<Uint8Array | null> {
  const found = await versionById(pool(), version);
  return found?.kind === 'camera-profile' && found.format === 'icc'
    ? new Uint8Array(await getBlob(found.sha256))
    : null;
}

export interface Base {
  look: Look;
  neutral: number[];
  white: White;
  /** the white that the file itself says */ shot: White;
}
/** The table that develops a frame's camera data by a profile ("plain" for none), at a white balance, with these rungs; anchored where asked. */
export async function baseTable(
  person: Person,
  asked: { frame: string; version: string; stages?: string | undefined; white?: string; anchor?: number | null },
): Promise<Base> {
  allow(person, 'view');
  const [frame] = uuids([asked.frame]);
  if (!frame) throw new Problem('not-found', 'There is no such frame.', asked.frame, 'Choose another frame.');
  const dng = await cameraHead(frame);
  const icc = asked.version === 'plain' ? null : await iccInput(asked.version);
  if (icc) {
    // it says nothing of whites: the file's own profile tells which one this is
    const own = plainProfile(dng.profile);
    const neutral = neutralUnder(asked.white ?? 'as', dng.neutral, own);
    const white = whitePoint(profileOf(own), neutral);
    return {
      look: await compute('inputTable', { icc, neutral }),
      neutral,
      white,
      shot: whitePoint(profileOf(own), dng.neutral),
    };
  }
  const dcp = asked.version === 'plain' ? plainProfile(dng.profile) : (await dcpOf(asked.version)).dcp;
  const stages = (
    asked.stages === undefined ? STAGES : STAGES.filter((s) => must(asked.stages).split(',').includes(s))
  ) as readonly Stage[];
  const neutral = neutralUnder(asked.white ?? 'as', dng.neutral, dcp);
  const profile = profileOf(asked.anchor ? anchor(dcp, neutral, asked.anchor) : dcp);
  return {
    look: await compute('profileTable', { profile, neutral, stages }),
    neutral,
    white: whitePoint(profile, neutral),
    shot: whitePoint(profileOf(dcp), dng.neutral),
  };
}

/** Keeps the re-anchored profile as an item of its own, a draft beside its source, with lineage. */
export async function keepAnchored(
  person: Person,
  input: unknown,
): Promise<{ itemId: string; versionId: string; after: White }> {
  allow(person, 'profile.edit');
  const asked = checked(benchEndpoints['POST /api/bench/anchor'].body, input) as {
    version: string;
    frame: string;
    white: string;
    kelvin: number;
    title: string;
  };
  const dng = await cameraHead(asked.frame);
  const source = await dcpOf(asked.version);
  const neutral = neutralUnder(asked.white, dng.neutral, source.dcp);
  const made = anchor(source.dcp, neutral, asked.kelvin);
  const bytes = writeDcp(made);
  const facts = cameraProfileFacts(bytes);
  const after = whitePoint(profileOf(readDcp(bytes)), neutral);
  const from = must(await itemById(pool(), source.itemId, person.id));
  await allowUnderLicence(person, from, 'convert');
  // made for the neutral of one frame, it is for that frame's body; the file bears the model's name, as the camera's own files do
  const on = (await frames(pool())).find((f) => f.id === asked.frame);
  const body = on?.camera ? bodyOf(on) : facts.camera;
  return transaction(async (sql) => {
    const out = await createItem(sql, actorOf(person), {
      kind: 'camera-profile',
      title: asked.title,
      headings: from.headings,
      shelfId: from.shelf_id,
      supplier: from.supplier,
      licenceId: from.licence_id,
      sha: await putBlob(sql, Buffer.from(bytes)),
      fileName: `${asked.title.replace(/[^\p{L}\p{N} ()-]+/gu, '-')}.dcp`,
      format: 'dcp',
      facts: { ...facts, fileTitle: facts.name, cameras: body ? [body] : null },
      selvedge: null,
      notes: `anchored at ${Math.round(asked.kelvin)} K for the neutral ${neutral.map((v) => v.toFixed(4)).join(', ')}`,
      origin: 'house',
    });
    await insertLineage(sql, out.versionId, asked.version, { tool: 'anchor', kelvin: asked.kelvin, neutral });
    return { ...out, after };
  });
}

// --- benches and sets
export async function listBenches(person: Person): Promise<q.BenchRow[]> {
  allow(person, 'view');
  return q.benches(pool(), person.id);
}
export async function saveBench(person: Person, id: string | null, input: unknown): Promise<{ id: string }> {
  allow(person, 'bench.save');
  const kept = checked(benchEndpoints['POST /api/bench/saved'].body, input) as {
    name: string;
    state: string;
    shared: boolean;
  };
  const made = id ?? v7();
  return transaction(async (sql) => {
    const had = id ? await q.benchById(sql, id) : undefined;
    if (id && !had) throw new Problem('not-found', 'This bench is not there any more.', id, 'Save it as a new one.');
    if (had && had.person_id !== person.id)
      throw new Problem('not-allowed', 'This bench is another person’s.', had.name, 'Save it under another name.');
    await q.saveBench(sql, { id: made, ...kept, personId: person.id });
    await record(sql, actorOf(person), 'bench', made, had ? 'changed' : 'made', had ? { name: had.name } : null, {
      name: kept.name,
    });
    return { id: made };
  });
}
export async function removeBench(person: Person, id: string): Promise<void> {
  allow(person, 'bench.save');
  await transaction(async (sql) => {
    const had = await q.benchById(sql, id);
    if (!had) throw new Problem('not-found', 'There is no such bench.', id, 'Reload the page.');
    if (had.person_id !== person.id)
      throw new Problem('not-allowed', 'This bench is another person’s.', had.name, `Ask ${had.person}.`);
    await q.removeBench(sql, id);
    await record(sql, actorOf(person), 'bench', id, 'removed', { name: had.name, state: had.state }, null);
  });
}
export async function listSets(person: Person): Promise<q.SetRow[]> {
  allow(person, 'view');
  return q.frameSets(pool());
}
export async function saveSet(person: Person, input: BodyOf<'POST /api/bench/sets'>): Promise<{ id: string }> {
  allow(person, 'frame.edit');
  const kept = checked(benchEndpoints['POST /api/bench/sets'].body, input) as {
    id?: string;
    name: string;
    frames: string[];
  };
  const id = kept.id ?? v7();
  await transaction(async (sql) => {
    await q.saveSet(sql, { id, name: kept.name, frames: uuids(kept.frames) });
    await record(sql, actorOf(person), 'frame-set', id, kept.id ? 'changed' : 'made', null, {
      name: kept.name,
      frames: kept.frames.length,
    });
  });
  return { id };
}
