import { randomUUID } from 'node:crypto';
import { must } from '@/core/must';
import { unzipSync } from 'fflate';
import { beforeAll, describe, expect, test } from 'vitest';
import { readCube } from '@/core/look';
import { Problem } from '@/core/problem';
import { houseLooks, oxbowPresets } from '@/demo/designs';
import { cubeOf, oxbowOf } from '@/demo/files';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { bringDescriptor } from '../editors/service';
import { convertPreset } from '../versions/convert';
import { versionById } from '../items/queries';
import { itemFor, lineageOf } from '../items/service';
import { approve } from '../items/approval';
import { searchItems } from '../search/service';
import { retire } from '../versions/service';
import { editItem } from '../items/edit';
import {
  enrol,
  instructionsFor,
  listingKey,
  makeCode,
  revokeToken,
  stationOfToken,
  takeReport,
} from '../stations/service';
import { stationView } from '../stations/views';
import { filesZip } from './sheet';
import { jobFor, runJob } from '../jobs/service';
import { planRollout } from './planning';
import {
  addStation,
  agent,
  approvedLook,
  carryOut,
  done,
  enrolled,
  item,
  jobOf,
  planned,
  report,
  sha,
  work,
} from './testing/world';
import {
  confirmRollout,
  contentFor,
  dropRollout,
  moveRollout,
  planFor,
  rolloutFor,
  takeResults,
  undoRollout,
} from './service';

withDatabase();
let desk = '';
let room = '';
let card = '';
let deskToken = '';
let roomToken = '';

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4, perrinAlder])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  desk = await addStation('Desk', 'macos', ['marlstone@4', 'oxbow@2']);
  room = await addStation('Room', 'linux', ['oxbow@2']);
  card = await addStation('Card', 'linux', ['perrin-alder@1'], { hostId: room });
  const code = await makeCode(pool(), desk);
  await expect(enrol({ code, system: 'linux', host: 'h', agentVersion: '1' })).rejects.toMatchObject({
    code: 'enrol-system',
  });
  deskToken = (await enrol({ code, system: 'macos', host: 'h', agentVersion: '1' })).token;
  await expect(enrol({ code, system: 'macos', host: 'h', agentVersion: '1' })).rejects.toMatchObject({
    code: 'enrol-code',
  }); // used up
  roomToken = await enrolled(room, 'linux');
});

describe('approval', () => {
  test('waits for a confirmed encoding, and only approved versions are rolled out', async () => {
    const { versionId } = await item('Draft', cubeOf(must(houseLooks[0]), 5), 'x.cube');
    await expect(approve(people.librarian, versionId)).rejects.toMatchObject({ code: 'encoding-assumed' });
    await expect(planRollout(people.librarian, { versions: [versionId], stations: [desk] })).rejects.toMatchObject({
      code: 'not-approved',
    });
  });
  test('of two people who edit one item the second is told, and nothing is lost', async () => {
    const { itemId } = await item('Both', cubeOf(must(houseLooks[1]), 5), 'x.cube');
    await editItem(people.librarian, itemId, { revision: 1, base: {}, mine: { title: 'First' } });
    await expect(
      editItem(people.librarian, itemId, { revision: 1, base: { title: 'Zeroth' }, mine: { title: 'Second' } }),
    ).rejects.toMatchObject({ code: 'edited-meanwhile' });
    expect((await itemFor(people.librarian, itemId)).item.title).toBe('First');
  });
});

describe('a conversion', () => {
  test('gives a draft look that knows its source, with the figures of its table', async () => {
    const { versionId, itemId } = await item('Rehearsal', oxbowOf(must(oxbowPresets[0])), 'x.xmp');
    const made = await convertPreset(people.librarian, { versionId, size: 17 });
    const found = await itemFor(people.librarian, made.itemId);
    expect(found.newest).toMatchObject({ status: 'draft', facts: { size: 17, kind: '3d' } });
    expect((await lineageOf(people.librarian, found)).sources.map((s) => s.version_id)).toEqual([versionId]);
    expect((found.newest.facts.left as { setting: string }[]).map((l) => l.setting).sort()).toEqual([
      'localContrast',
      'noiseColor',
      'noiseLuminance',
      'sharpening',
    ]);
    expect((found.newest.facts.tableError as { meanDeltaE: number }).meanDeltaE).toBeGreaterThan(0);
    const source = await itemFor(people.librarian, itemId);
    expect((await lineageOf(people.librarian, source)).results.map((r) => r.item_id)).toEqual([made.itemId]);
  });
  test('is for any camera and file, and for monochrome where what goes in makes it so', async () => {
    const source = must(oxbowPresets.find((x) => x.title === 'Engraver'));
    const { versionId } = await item(source.title, oxbowOf(source), 'm.xmp');
    const scope = async (settings?: string[]) => {
      const converted = await convertPreset(people.librarian, {
        versionId,
        size: 17,
        title: `Made ${settings?.join(' ') ?? 'of all'}`,
        ...(settings ? { settings } : {}),
      });
      const { item } = await itemFor(people.librarian, converted.itemId);
      return [item.cameras, item.scope.input, item.scope.result];
    };
    expect(await scope()).toEqual([[], null, 'monochrome']);
    expect(await scope(['contrast'])).toEqual([[], null, null]);
  });
  test('gives a monochrome result by its content, whether that was said or not', async () => {
    const result = async (design: (typeof houseLooks)[number]) => {
      const { itemId, versionId } = await item(`${design.title} by content`, cubeOf(design, 9), 'gray.cube');
      const found = await searchItems(people.librarian, { q: `${design.title} by content`, result: 'monochrome' });
      const { item: row } = await itemFor(people.librarian, itemId);
      const version = must(await versionById(pool(), versionId));
      return [found.rows.length, row.gray, row.scope.result ?? null, version.scope.result ?? null];
    };
    const gray = must(houseLooks.find(({ title }) => title === 'Plate Monochrome'));
    const colored = must(houseLooks.find(({ title }) => title === 'Amber Proscenium'));
    expect(await result(gray)).toEqual([1, true, null, 'monochrome']);
    expect(await result(colored)).toEqual([0, false, null, null]);
  });
  test('of which nothing would be left is refused', async () => {
    const { versionId } = await item(
      'Only detail',
      oxbowOf({ title: 'D', headings: [], steps: [['tooth', { load: 0.5 }]] }),
      'y.xmp',
    );
    await expect(convertPreset(people.librarian, { versionId })).rejects.toMatchObject({ code: 'convert-empty' });
  });
});

describe('a rollout', () => {
  test('plans each editor’s own form, writes nothing before it is confirmed, moves the base when the agent has reported, and is undone', async () => {
    const { versionId } = await approvedLook(2);
    await report(deskToken, []);
    await report(roomToken, []);
    const id = await planned({ versions: [versionId], stations: [desk, room, card] });
    const { steps } = await rolloutFor(people.librarian, id);
    expect(steps.map((s) => [s.station, s.editor_id, s.do_what, s.path]).sort()).toEqual([
      ['Card', 'perrin-alder', 'put', 'media/ALDER/LOOKS.LST'],
      ['Card', 'perrin-alder', 'put', 'media/ALDER/LOOKS/Limelight_Bleach.cube'],
      ['Desk', 'marlstone', 'put', 'Library/Application Support/.marlstone-4/looks/Limelight Bleach.mlook'],
      ['Desk', 'oxbow', 'put', 'Oxbow/Looks/House/Limelight Bleach.cube'],
      ['Room', 'oxbow', 'put', 'Oxbow/Looks/House/Limelight Bleach.cube'],
    ]);
    expect(await planFor(await agent(deskToken))).toBeNull();
    await confirmRollout(people.librarian, id);
    await expect(confirmRollout(people.librarian, id)).rejects.toMatchObject({ code: 'rollout-settled' });
    // the card is written by the agent of the workstation in whose reader it sits
    const plan = must(await planFor(await agent(roomToken)));
    expect(plan.operations.map((o) => o.path).sort()).toEqual([
      'Oxbow/Looks/House/Limelight Bleach.cube',
      'media/ALDER/LOOKS.LST',
      'media/ALDER/LOOKS/Limelight_Bleach.cube',
    ]);
    const parts: Buffer[] = [];
    for await (const chunk of (
      await contentFor(
        await agent(roomToken),
        must(must(plan.operations.find((o) => o.path.startsWith('media') && o.path.endsWith('.cube'))).sha256),
      )
    ).chunks)
      parts.push(chunk);
    expect(readCube(Buffer.concat(parts)).size).toBe(33);
    expect(Object.keys(unzipSync((await filesZip(people.librarian, id, card)).bytes))).toEqual([
      'ALDER/LOOKS/Limelight_Bleach.cube',
      'ALDER/LOOKS.LST',
    ]);
    const deskOps = await carryOut(deskToken);
    const roomOps = await carryOut(roomToken);
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('done');
    await report(
      deskToken,
      deskOps.map((o) => ({ path: o.path, size: 1, sha256: must(o.sha256) })),
    );
    await report(
      roomToken,
      roomOps.map((o) => ({ path: o.path, size: 1, sha256: must(o.sha256) })),
    );
    expect((await stationView(people.librarian, desk)).editors.map((e) => [e.editor, e.placed, e.state])).toEqual([
      ['marlstone', 1, 'launch-due'],
      ['oxbow', 1, 'launch-due'],
    ]);
    const again = await rolloutFor(people.librarian, await planned({ versions: [versionId], stations: [desk] }));
    expect(again.steps.map((s) => [s.do_what, s.decision])).toEqual([
      ['none', 'in-step'],
      ['none', 'in-step'],
    ]);

    await undoRollout(people.librarian, id);
    const back = await planFor(await agent(deskToken));
    expect(must(back).operations.map((o) => [o.do, o.sha256])).toEqual([
      ['remove', null],
      ['remove', null],
    ]);
    await carryOut(deskToken);
    await carryOut(roomToken);
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('undone');
    expect((await pool().query('select 1 from placement')).rowCount).toBe(0);
    await report(deskToken, []);
    await report(roomToken, []);
  });

  test('is planned by a job: until then it has no files and cannot be confirmed', async () => {
    const { versionId } = await approvedLook(2);
    const id = await planRollout(people.librarian, { versions: [versionId], stations: [desk] });
    const begun = await rolloutFor(people.librarian, id);
    expect([begun.rollout.status, begun.steps]).toEqual(['planning', []]);
    await expect(confirmRollout(people.librarian, id)).rejects.toMatchObject({ code: 'rollout-planning' });
    await work(id);
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('planned');
    // a worker that was thought dead and its heir: the steps are there once
    const { steps } = await rolloutFor(people.librarian, id);
    await pool().query(`update job set status = 'running' where id = $1`, [await jobOf(id)]);
    await work(id);
    expect((await rolloutFor(people.librarian, id)).steps).toEqual(steps);
    await dropRollout(people.librarian, id);
  });

  test('dropped while it is being planned stays dropped', async () => {
    const { versionId } = await approvedLook(2);
    const id = await planRollout(people.librarian, { versions: [versionId], stations: [desk] });
    await dropRollout(people.librarian, id);
    await work(id);
    const { rollout, steps } = await rolloutFor(people.librarian, id);
    expect([rollout.status, steps]).toEqual(['dropped', []]);
    expect((await jobFor(people.librarian, await jobOf(id))).status).toBe('cancelled');
  });

  test('says why it could not be planned', async () => {
    const { versionId } = await approvedLook(2);
    const id = await planRollout(people.librarian, { versions: [versionId], stations: [desk] });
    await retire(people.librarian, versionId);
    await work(id);
    expect(await jobFor(people.librarian, await jobOf(id))).toMatchObject({
      status: 'failed',
      error: { code: 'not-approved' },
    });
  });

  test('tells restart due, listed and refused from the editor’s own list alone', async () => {
    const { versionId } = await approvedLook(3);
    const id = await planned({ versions: [versionId], stations: [desk] });
    await confirmRollout(people.librarian, id);
    const ops = await carryOut(deskToken);
    const files = ops.map((o) => ({ path: o.path, size: 1, sha256: must(o.sha256) }));
    const mlook = must(ops.find((o) => o.path.endsWith('.mlook'))).path;
    const says = (at: string, listed: object[], refused: object[], running = true) => [
      {
        editor: listingKey(desk, { editor_id: 'marlstone', editor_version: '4' }),
        text: JSON.stringify({ at, running, listed, refused }),
        running,
        at,
      },
    ];
    const state = async () =>
      must((await stationView(people.librarian, desk)).rows.find((r) => r.path === mlook)).state;
    await report(deskToken, files, says('2020-01-01T00:00:00.000Z', [], []));
    expect(await state()).toBe('restart-due');
    const later = (s: number) => new Date(Date.now() + s * 1000).toISOString();
    await report(deskToken, files, says(later(5), [], [{ path: mlook, reason: 'too many points' }]));
    expect(await state()).toBe('refused');
    await report(deskToken, files, says(later(6), [], []));
    expect(await state()).toBe('not-listed');
    await report(deskToken, files, says(later(7), [{ path: mlook, title: 'Gallery Neutral', kind: 'look' }], []));
    expect(await state()).toBe('listed');
    await report(
      deskToken,
      files.map((f) => (f.path === mlook ? { ...f, sha256: sha('edited') } : f)),
      [],
    );
    expect(await state()).toBe('changed-there');
    // what was changed there is not overwritten by another rollout
    const next = await rolloutFor(
      people.librarian,
      await planned({
        versions: [(await approvedLook(4)).versionId, versionId],
        stations: [desk],
      }),
    );
    expect(next.steps.find((s) => s.path === mlook)).toMatchObject({ do_what: 'none', decision: 'changed-there' });
  });

  test('refuses what an editor does not take, with the reason', async () => {
    const { versionId } = await item('Maquette', oxbowOf(must(oxbowPresets[3])), 'm.xmp');
    await approve(people.librarian, versionId);
    const { steps } = await rolloutFor(people.librarian, await planned({ versions: [versionId], stations: [desk] }));
    expect(steps.find((s) => s.editor_id === 'marlstone')).toMatchObject({
      do_what: 'none',
      decision: 'not-accepted',
      note: expect.stringContaining('Marlstone 4 reads presets of Marlstone 4') as string,
    });
    expect(must(steps.find((s) => s.editor_id === 'oxbow')).do_what).toBe('put');
  });

  test('a conflict at the station is kept as one, and results said twice change nothing', async () => {
    const { versionId } = await approvedLook(5);
    const id = await planned({ versions: [versionId], stations: [room] });
    await confirmRollout(people.librarian, id);
    const station = await agent(roomToken);
    const plan = must(await planFor(station));
    const results = plan.operations.map((operation) => ({
      n: operation.n,
      outcome: 'conflict',
      message: 'was changed here',
      before: null,
      at: new Date().toISOString(),
    }));
    await takeResults(station, id, { results });
    await takeResults(station, id, { results: done(plan.operations) });
    expect((await rolloutFor(people.librarian, id)).steps.map((s) => s.outcome)).toEqual(['conflict']);
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('done');
    await expect(undoRollout(people.librarian, id)).rejects.toMatchObject({ code: 'rollout-empty' });
  });
});

describe('agents', () => {
  test('reach their own station only', async () => {
    const { versionId } = await approvedLook(6);
    const id = await planned({ versions: [versionId], stations: [desk] });
    await confirmRollout(people.librarian, id);
    const sha256 = must(must(must(await planFor(await agent(deskToken))).operations[0]).sha256);
    await expect(contentFor(await agent(roomToken), sha256)).rejects.toMatchObject({ code: 'not-found' });
    expect((await contentFor(await agent(deskToken), sha256)).size).toBeGreaterThan(1000);
    await expect(stationOfToken('Bearer wrong-token-wrong-token-wrong')).rejects.toMatchObject({
      code: 'agent-unknown',
    });
  });
  test('are told folders below their root, the card’s too, and are asked for files only when the digest differs', async () => {
    const instructions = await instructionsFor(await agent(roomToken));
    expect(instructions.places.map((p) => p.path).sort()).toEqual([
      'Oxbow/Lenses',
      'Oxbow/Looks',
      'Oxbow/Presets',
      'Oxbow/Profiles',
      'Oxbow/Support',
      'media/ALDER/LOOKS',
    ]);
    const station = await agent(roomToken);
    const quiet = { agentVersion: '1', files: null, listings: [], indexes: [], waiting: null };
    expect(await takeReport(station, { ...quiet, digest: sha('other') })).toEqual({ need: 'files' });
    await report(roomToken, []);
    expect(await takeReport(await agent(roomToken), { ...quiet, digest: sha('[]') })).toEqual({ need: null });
  });
  test('two of one token are told, with their hosts; a revoked token holds no longer', async () => {
    const token = await enrolled(await addStation('Twice', 'linux', ['oxbow@2']), 'linux');
    const says = async (run: string, host: string) =>
      takeReport(await agent(token), {
        agentVersion: '1',
        files: [],
        digest: sha('[]'),
        listings: [],
        indexes: [],
        waiting: null,
        run,
        host,
      });
    const [one, other] = [randomUUID(), randomUUID()];
    await says(one, 'desk');
    await says(other, 'copy of desk');
    expect((await agent(token)).doubled).toBeNull();
    await says(one, 'desk');
    const { id, doubled } = await agent(token);
    expect(doubled?.hosts).toEqual(['desk', 'copy of desk']);
    await revokeToken(people.librarian, id);
    await expect(agent(token)).rejects.toMatchObject({ code: 'agent-unknown' });
    expect((await stationView(people.librarian, id)).station.doubled).toBeNull();
  });
  test('whose report steps out of the root is refused', async () => {
    await expect(report(roomToken, [{ path: '../../etc/passwd', size: 1, sha256: sha('x') }])).rejects.toMatchObject({
      code: 'input-invalid',
    });
  });
});

describe('a plan whose working out has failed', () => {
  test('stays, says why, and is worked out again', async () => {
    const one = await approvedLook(0);
    const id = await planRollout(people.librarian, { versions: [one.versionId], stations: [room] });
    await runJob(await jobOf(id), { plan: () => Promise.reject(new Problem('x', 'It broke.', 'here', 'Again.')) });
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('planning');
    const failed = await jobOf(id);
    await moveRollout(people.librarian, id, { verb: 'again' });
    expect(await jobOf(id)).not.toBe(failed);
    await expect(moveRollout(people.librarian, id, { verb: 'again' })).rejects.toMatchObject({
      code: 'rollout-planning',
    });
    await work(id);
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('planned');
    await moveRollout(people.librarian, id, { verb: 'drop' });
    await expect(moveRollout(people.librarian, id, { verb: 'again' })).rejects.toMatchObject({
      code: 'rollout-settled',
    });
  });
});
