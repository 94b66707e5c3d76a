/** A rollout that writes lists which editors keep themselves: planned at once, and else like any other. */
import { distinct } from '@/core/lists';
import { counted } from '@/core/words';
import { v7 } from 'uuid';
import { record } from '../activity/queries';
import { hex, putBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import { actorOf, type Person } from '../people/roles';
import { insertRollout, insertSteps, setRollout, type NewStep } from '../rollouts/queries';
import { shaOfText, type EditorThere } from './there';

/** What is to be written into one list. */
export interface ListWrite {
  there: EditorThere;
  path: string;
  bytes: Uint8Array;
  /** what we ask for in it, which is the base once it is written */ asked: readonly unknown[];
  note: string;
}

async function stepOf(
  sql: Sql,
  { there, path, bytes, asked, note }: ListWrite,
  place: string,
  n: number,
): Promise<NewStep> {
  const { station, agent, descriptor } = there;
  const base = there.baseAt(path);
  return {
    station_id: station.id,
    agent_station_id: agent.id,
    editor_id: descriptor.editor,
    editor_version: descriptor.version,
    place,
    version_id: null,
    rendition_id: null,
    n,
    do_what: 'put',
    path,
    sha: hex(await putBlob(sql, Buffer.from(bytes))),
    size: bytes.length,
    expect: shaOfText(there.textAt(path)),
    decision: 'put',
    note,
    prior: null,
    lines: null,
    list: { asked: [...asked], before: base.length ? [...base] : null },
  };
}

/**
 * Plans these writes; answers with the rollout.
 * @param what the lists are called, such as "favorites"
 */
export async function planLists(sql: Sql, person: Person, what: string, writes: readonly ListWrite[]): Promise<string> {
  const id = v7();
  const counters = new Map<string, number>();
  const steps: NewStep[] = [];
  for (const write of writes) {
    const agent = write.there.agent.id;
    const n = counters.get(agent) ?? 0;
    counters.set(agent, n + 1);
    steps.push(await stepOf(sql, write, what, n));
  }
  const at = distinct(writes.map(({ there }) => there.station.name));
  const name = what.charAt(0).toUpperCase() + what.slice(1);
  const title = at.length === 1 ? `${name} at ${at[0]}` : `${name} at ${counted(at.length, 'station')}`;
  await insertRollout(sql, { id, title, personId: person.id, undoes: null, status: 'planning' });
  await insertSteps(sql, id, steps);
  await setRollout(sql, id, 'planned');
  await record(sql, actorOf(person), 'rollout', id, 'planned', null, { title, steps: steps.length });
  return id;
}
