/** A station's name, owner and life. */
import { beforeAll, describe, expect, test } from 'vitest';
import { people, withDatabase } from '../db/testing/database';
import { answerAgent } from '../http/agents';
import { addStation, changeStation, enrol, newCode, stationOfToken } from './service';
import { fleet, retiredStations, stationChoices, stationView } from './views';

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

  test('that is retired is in nothing but its history, and its agent is not let in', async () => {
    expect((await stationOfToken(`Bearer ${token}`)).id).toBe(desk);
    await changeStation(people.librarian, desk, { name: 'Glaze room', retired: true });
    expect((await fleet(people.lead)).views.map((view) => view.station.name)).toEqual(['Model room']);
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

test('the agent is given to whoever asks, as one file that runs', async () => {
  const answer = await answerAgent(new Request('http://studio/api/agent/program'), ['program']);
  expect(answer.headers.get('content-disposition')).toContain('etagere-agent.mjs');
  const text = await answer.text();
  expect(text).toContain('etagere-agent enrol --server URL --code CODE');
  // all that it needs is in it
  expect(text).not.toMatch(/from\s*["']\.{1,2}\//);
});
