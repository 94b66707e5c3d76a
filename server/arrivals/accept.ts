/** Taking an arrival onto the shelves in one transaction, and putting it back whole. */
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import { v7 } from 'uuid';
import { array, lazy, mixed, number, object, string } from 'yup';
import { isTakeable } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { uuid } from '@/core/uuid';
import { getBlob, hex } from '../blobs/service';
import { transaction, type Sql } from '../db/pool';
import { bringDescriptor } from '../editors/service';
import { record } from '../events';
import { frameFromFile } from '../frames/service';
import { addVersion, createItem } from '../items/create';
import { addShelf } from '../items/shelves';
import { addLicence, type NewLicence } from '../licences/service';
import { addJob } from '../jobs/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../people/service';
import * as q from './queries';

const schema = object({
  entries: array().of(number().integer().required()).nullable().default(null),
  except: array().of(number().integer().required()).default([]),
  shelfId: uuid().nullable().default(null),
  newShelf: string().trim().max(120).default(''),
  newLicence: mixed<NewLicence>().nullable().default(null),
  byKind: lazy((value: unknown) =>
    object(
      Object.fromEntries(Object.keys((value ?? {}) as object).map((k) => [k, uuid().required('Choose a shelf.')])),
    ).default({}),
  ),
  supplier: string().trim().max(200).default(''),
  release: string().trim().max(80).default(''),
  licenceId: uuid().nullable().default(null),
  source: object({
    address: string().trim().max(500),
    author: string().trim().max(200),
    date: string().trim().max(40),
    receipt: string().trim().max(200),
  })
    .noUnknown()
    .default({}),
  origin: mixed<'house' | 'bought' | 'measured' | 'maker-like'>().oneOf([
    'house',
    'bought',
    'measured',
    'maker-like',
    undefined,
  ]),
}).noUnknown();
export interface Acceptance {
  /** none given: all that is proposed */ entries?: number[] | null;
  except?: number[];
  /** where new items go, or the name of the shelf that is made for them */ shelfId?: string | null;
  newShelf?: string;
  newLicence?: NewLicence | null;
  /** where new items of a kind go instead */ byKind?: Record<string, string>;
  supplier?: string;
  release?: string;
  licenceId?: string | null;
  source?: q.Source;
  origin?: 'house' | 'bought' | 'measured' | 'maker-like';
}

const TAKEN = ['new', 'version', 'variant', 'frame', 'descriptor'];
const settled = (id: string): Problem =>
  new Problem(
    'arrival-settled',
    'This arrival has been settled already, or is still being read.',
    id,
    'Reload the page.',
  );

/** Takes the chosen entries as what they are to become: all of them or none. Duplicates join the pack as members, not as items. */
export async function acceptArrival(
  person: Person,
  id: string,
  input: Acceptance,
): Promise<{ items: string[]; versions: number; frames: number; descriptors: number }> {
  allow(person, 'arrival.accept');
  const { shelfId: onto, newShelf, newLicence, ...a } = checked(schema, input) as unknown as Required<Acceptance>;
  const actor = actorOf(person);
  if (!onto && !newShelf)
    throw new Problem('input-invalid', 'Choose a shelf.', 'shelf', 'Choose one, or name a new one.');
  return transaction(async (sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival || arrival.status !== 'ready') throw settled(id);
    const rows = await q.entriesOf(sql, id);
    const wanted = a.entries ? new Set(a.entries) : null;
    const except = new Set(a.except);
    const chosen = rows.filter((e) => (wanted ? wanted.has(e.id) : TAKEN.includes(e.outcome)) && !except.has(e.id));
    const out = { items: [] as string[], versions: 0, frames: 0, descriptors: 0 };
    if (!chosen.length)
      throw new Problem(
        'arrival-nothing',
        'Nothing is chosen.',
        id,
        'Choose at least one file, or discard the arrival.',
      );
    const bad = chosen.find(
      (e) => !TAKEN.includes(e.outcome) || (['new', 'version', 'variant'].includes(e.outcome) && !isTakeable(e.kind)),
    );
    if (bad)
      throw new Problem(
        'arrival-entry',
        'Only what can stand on a shelf, frames and descriptors are taken.',
        bad.path,
        'Take this file out of the choice, or say what it is to become.',
      );
    const shelfId = newShelf ? await addShelf(person, { name: newShelf }, sql) : must(onto);
    const licenceId = newLicence ? await addLicence(person, newLicence, sql) : a.licenceId;
    const packId = v7();
    const single = rows.length === 1;
    if (!single)
      await q.insertPack(sql, {
        id: packId,
        name: arrival.name.replace(/\.zip$/i, ''),
        arrivalId: id,
        supplier: a.supplier,
        release: a.release,
        source: a.source,
        licenceId,
        previousId: arrival.previous_pack_id,
      });
    await q.arrivalSource(sql, id, a.source, licenceId);
    const madeOf = new Map<number, { itemId: string; versionId: string }>();
    const bySha = new Map<string, string>();
    const frames: string[] = [];
    // items first, then what belongs to them
    const order = [...chosen].sort(
      (x, y) => Number(x.target_entry_id !== null) - Number(y.target_entry_id !== null) || x.path.localeCompare(y.path),
    );
    for (const entry of order) {
      if (entry.outcome === 'descriptor') {
        await bringDescriptor(
          sql,
          actor,
          JSON.parse((await getBlob(must(entry.sha256), sql)).toString('utf8')),
          entry.path,
        );
        await q.entryTaken(sql, entry.id, null);
        out.descriptors++;
        continue;
      }
      if (entry.outcome === 'frame') {
        frames.push(
          await frameFromFile(sql, actor, {
            name: entry.title,
            fileName: fileNameOf(entry.path),
            sha: must(entry.sha256),
            facts: entry.facts,
          }),
        );
        await q.entryTaken(sql, entry.id, null, frames[frames.length - 1]);
        out.frames++;
        continue;
      }
      const version = {
        kind: entry.kind as 'look',
        sha: must(entry.sha256),
        fileName: fileNameOf(entry.path),
        format: entry.format,
        facts: entry.facts,
        selvedge: entry.selvedge,
        notes: `from ${arrival.name}`,
        internalId: entry.internal_id,
        content: entry.content_sha256,
        fingerprint: entry.fingerprint,
      };
      let made: { itemId: string; versionId: string };
      if (entry.outcome === 'new') {
        const held = entry.corrected ? undefined : await q.heldBySha(sql, must(entry.sha256));
        if (held)
          throw new Problem(
            'arrival-held',
            `What ${entry.path} holds came in meanwhile, as ${held.title}.`,
            entry.path,
            'Read the arrival again.',
          );
        made = await createItem(sql, actor, {
          ...version,
          title: entry.title,
          headings: entry.headings,
          shelfId: a.byKind[entry.kind] ?? shelfId,
          supplier: a.supplier,
          licenceId,
          source: a.source,
          origin: a.origin ?? undefined,
          creator: a.source.author ?? '',
        });
        out.items.push(made.itemId);
      } else {
        const target = entry.target_item_id ?? madeOf.get(entry.target_entry_id ?? -1)?.itemId;
        if (!target)
          throw new Problem(
            'arrival-target',
            `${entry.path} belongs to ${entry.target_path ?? 'an item'}, which is not taken.`,
            entry.path,
            'Take that one too, or make this one an item of its own.',
          );
        made = {
          itemId: target,
          versionId: await addVersion(sql, actor, target, {
            ...version,
            variant: entry.outcome === 'variant' ? (entry.likeness?.mark ?? 'another variant') : '',
          }),
        };
        await record(
          sql,
          actor,
          'item',
          target,
          entry.outcome === 'variant' ? 'variant added' : 'version added',
          null,
          {
            path: entry.path,
            arrival: arrival.name,
          },
        );
        out.versions++;
      }
      madeOf.set(entry.id, made);
      bySha.set(hex(must(entry.sha256)), made.versionId);
      await q.entryTaken(sql, entry.id, made.versionId);
      if (!single) await q.insertMember(sql, packId, entry.path, made.versionId);
    }
    if (!single)
      for (const entry of rows)
        if (entry.outcome === 'duplicate') {
          const value =
            entry.held_version_id ??
            madeOf.get(entry.target_entry_id ?? -1)?.versionId ??
            bySha.get(hex(must(entry.sha256)));
          if (value) await q.insertMember(sql, packId, entry.path, value);
        }
    if (frames.length)
      await addJob(
        sql,
        'frames',
        `Make ${frames.length === 1 ? 'a frame' : `${frames.length} frames`} ready`,
        { frames },
        person.id,
      );
    await q.arrivalStatus(sql, id, 'accepted');
    await record(sql, actor, 'arrival', id, 'accepted', null, {
      items: out.items.length,
      versions: out.versions,
      frames: out.frames,
      descriptors: out.descriptors,
    });
    return out;
  });
}

/** Puts an accepted arrival back whole, unless something depends on what it made: then that is named, and nothing happens. */
export async function undoArrival(
  person: Person,
  id: string,
): Promise<{ versions: number; items: number; frames: number }> {
  allow(person, 'arrival.accept');
  return transaction(async (sql: Sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival || arrival.status !== 'accepted')
      throw new Problem('arrival-settled', 'Only an accepted arrival can be put back.', id, 'Reload the page.');
    const hang = await q.dependents(sql, id);
    if (hang.length)
      throw new Problem(
        'arrival-needed',
        `Something depends on what came in: ${hang.map((h) => `${h.n} ${h.n === 1 ? 'is' : 'are'} ${h.what}${h.example ? ` (${h.example})` : ''}`).join('; ')}.`,
        arrival.name,
        'Undo those first, then put the arrival back.',
      );
    const back = await q.takeBack(sql, id);
    await q.arrivalStatus(sql, id, 'ready');
    await record(sql, actorOf(person), 'arrival', id, 'put back', null, back);
    return back;
  });
}
