/** A station's name, owner and life. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { answerAgent } from '../http/agents';
import { moveRollout } from '../rollouts/service';
import { approvedLook, carryOut, planned, report } from '../rollouts/testing/world';
import { addCard, addStation, changeStation, enrol, newCode, stationOfToken } from './service';
import { wholeFleet } from '@/core/records/fleet';
import { listActivity } from '../activity/service';
import { fleet } from './fleet';
import { retiredStations, stationChoices, stationView } from './views';

withDatabase();
let desk = '';
let token = '';
const enrolAt = async (code: string): Promise<string> =>
  (await enrol({ code, system: 'linux', host: 'desk', agentVersion: '0.1.0' })).token;

beforeAll(async () => {
  const added = await addStation(people.librarian, { name: 'Glaze desk', system: 'linux', person: 'Mirre Sand' });
  await addStation(people.librarian, { name: 'Model room', system: 'linux' });
  desk = added.id;
  token = await enrolAt(added.code);
});
const at = async () => (await stationView(people.lead, desk)).station;

describe('a station', () => {
  test('is called another name, and is somebody else’s', async () => {
    await changeStation(people.librarian, desk, { name: ' Glaze room ', person: 'Odile Wren' });
    expect(await at()).toMatchObject({ name: 'Glaze room', person: 'Odile Wren', enrolled: true, retired_at: null });
    await expect(changeStation(people.librarian, desk, { name: 'Model room' })).rejects.toMatchObject({
      code: 'station-exists',
    });
    await expect(changeStation(people.librarian, desk, { name: '' })).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(changeStation(people.lead, desk, { name: 'Mine' })).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('is put into groups, by which the fleet is narrowed; where none are said they stay', async () => {
    await changeStation(people.librarian, desk, { name: 'Glaze room', groups: ['Kiln', 'Upper floor'] });
    await changeStation(people.librarian, desk, { name: 'Glaze room', person: 'Mirre Sand' });
    expect(await at()).toMatchObject({ groups: ['Kiln', 'Upper floor'] });
    const inGroup = async (group: string) =>
      (await fleet(people.lead, 0, { ...wholeFleet, group })).stations.map(({ station }) => station.name);
    expect(await inGroup('Upper floor')).toEqual(['Glaze room']);
    expect(await inGroup('upper')).toEqual([]);
    expect((await fleet(people.lead)).groups).toEqual(['Kiln', 'Upper floor']);
    await expect(
      changeStation(people.librarian, desk, { name: 'Glaze room', groups: ['x'.repeat(41)] }),
    ).rejects.toMatchObject({ code: 'input-invalid' });
    await changeStation(people.librarian, desk, { name: 'Glaze room', groups: [] });
    expect((await fleet(people.lead)).groups).toEqual([]);
    const { rows } = await listActivity(people.lead, {});
    expect(rows.filter(({ action }) => action === 'grouped')).toHaveLength(2);
  });

  test('that is retired is in nothing but its history, and its agent is not let in', async () => {
    expect((await stationOfToken(`Bearer ${token}`)).id).toBe(desk);
    await changeStation(people.librarian, desk, { name: 'Glaze room', retired: true });
    expect((await fleet(people.lead)).stations.map(({ station }) => station.name)).toEqual(['Model room']);
    expect((await fleet(people.lead)).workstations).toBe(1);
    expect((await stationChoices(people.lead)).map((one) => one.name)).toEqual(['Model room']);
    expect(await retiredStations(people.lead)).toEqual([{ id: desk, name: 'Glaze room' }]);
    await expect(stationOfToken(`Bearer ${token}`)).rejects.toMatchObject({ code: 'agent-unknown' });
    expect((await at()).retired_at).toBeInstanceOf(Date);
  });

  test('that is brought back is enrolled anew', async () => {
    await changeStation(people.librarian, desk, { name: 'Glaze room', retired: false });
    expect((await fleet(people.lead)).workstations).toBe(2);
    await expect(stationOfToken(`Bearer ${token}`)).rejects.toMatchObject({ code: 'agent-unknown' });
    const again = await enrolAt(await newCode(people.librarian, desk));
    expect((await stationOfToken(`Bearer ${again}`)).name).toBe('Glaze room');
  });
});

describe('its editors', () => {
  const change = (change: object) => changeStation(people.librarian, desk, { name: 'Glaze room', ...change });
  const editorsAt = async (id = desk) =>
    (await stationView(people.lead, id)).editors.map(({ editor, version }) => `${editor}@${version}`);

  beforeAll(async () => {
    await transaction(async (sql) => {
      for (const descriptor of [oxbow2, marlstone4, perrinAlder])
        await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
    });
  });

  test('come and go by what changed, so that two people at once lose nothing', async () => {
    await change({ came: ['oxbow@2'] });
    await change({ came: [], went: [] });
    expect(await editorsAt()).toEqual(['oxbow@2']);
    await change({ came: ['oxbow@2'], went: ['tessel@7'] });
    expect(await editorsAt()).toEqual(['oxbow@2']);
    const [event] = await many<{ after: object }>(
      pool(),
      `select after from event where action = 'editors changed' order by id desc limit 1`,
    );
    expect(event?.after).toEqual({ added: 'Oxbow 2', gone: '', left: 0 });
  });

  test.each([
    ['nobody knows', 'velour@1', 'editor-unknown'],
    ['does not run there', 'marlstone@4', 'editor-system'],
    ['is a camera', 'perrin-alder@1', 'editor-elsewhere'],
  ])('do not come where the studio says of one that it %s', async (_, editor, code) => {
    await expect(change({ came: [editor] })).rejects.toMatchObject({ code });
    await expect(
      addStation(people.librarian, { name: `For ${editor}`, system: 'linux', editors: [editor] }),
    ).rejects.toMatchObject({ code });
    expect(await editorsAt()).toEqual(['oxbow@2']);
  });

  test('do not go while something waits for them; then our files stay there, and are theirs', async () => {
    const { versionId } = await approvedLook(0);
    const agent = await enrolAt(await newCode(people.librarian, desk));
    await report(agent, []);
    const rollout = await planned({ versions: [versionId], stations: [desk] });
    await moveRollout(people.librarian, rollout, { verb: 'confirm' });
    await expect(change({ went: ['oxbow@2'] })).rejects.toMatchObject({
      code: 'editor-busy',
      message: '1 file of a rollout waits to be written for Oxbow 2.',
    });
    const [put] = await carryOut(agent);
    const { path, sha256, size } = must(put);
    await report(agent, [{ path, size, sha256: must(sha256) }]);
    expect((await stationView(people.lead, desk)).editors[0]?.placed).toBe(1);
    await change({ went: ['oxbow@2'] });
    expect(await editorsAt()).toEqual([]);
    await change({ came: ['oxbow@2'] });
    const { rows } = await stationView(people.lead, desk);
    expect(rows.map((row) => [row.path, row.base, row.decision])).toEqual([[path, null, 'theirs']]);
  });
});

describe('a card', () => {
  test('is added to the reader of a workstation, for a camera', async () => {
    const { id } = await addCard(people.librarian, desk, { name: 'Card two', camera: 'perrin-alder@1' });
    const view = await stationView(people.lead, id);
    expect([view.host, view.editors.map(({ title }) => title)]).toEqual(['Glaze room', ['Perrin Alder']]);
    await expect(addCard(people.librarian, desk, { name: 'Card two', camera: 'perrin-alder@1' })).rejects.toMatchObject(
      { code: 'station-exists' },
    );
    await expect(addCard(people.librarian, desk, { name: 'Other', camera: 'oxbow@2' })).rejects.toMatchObject({
      code: 'editor-elsewhere',
    });
    await expect(addCard(people.librarian, id, { name: 'Other', camera: 'perrin-alder@1' })).rejects.toMatchObject({
      code: 'card-host',
    });
    await expect(addCard(people.lead, desk, { name: 'Other', camera: 'perrin-alder@1' })).rejects.toMatchObject({
      code: 'not-allowed',
    });
  });
});

test('the agent is given to whoever asks, as one file that runs', async () => {
  const answer = await answerAgent(new Request('http://studio/api/agent/program'), ['program']);
  expect(answer.headers.get('content-disposition')).toContain('etagere-agent.mjs');
  const text = await answer.text();
  expect(text).toContain('etagere-agent enrol --server URL --code CODE');
  // all that it needs is in it
  expect(text).not.toMatch(/from\s*["']\.{1,2}\//);
});
