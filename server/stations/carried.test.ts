/** A workstation without a way to the server: files and answers between the real server and the real agent, and what is done to them on the way. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { contentName, type CarriedAnswer } from '@/core/sync/carried';
import { carriedName } from '@/core/sync/carried-name';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { one } from '../db/query';
import { bringDescriptor } from '../editors/service';
import { confirmRollout, dropRollout, rolloutFor } from '../rollouts/service';
import { addStation, agent, approvedLook, planned, report } from '../rollouts/testing/world';
import { makeCarried, takeCarriedAnswer } from './carried';
import { carriedThere } from './carried-there';
import { changeStation, revokeToken } from './service';
import { stationView } from './views';

withDatabase();

const base = mkdtempSync(join(tmpdir(), 'etagere-carried-'));
afterAll(() => rmSync(base, { recursive: true, force: true }));
const SERVER = 'https://etagere.house.example';

beforeAll(() => transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd')));

/** A workstation with a folder tree of its own, and what is carried to it and back. */
class Away {
  private files = 0;
  constructor(
    readonly id: string,
    readonly name: string,
    readonly root: string,
  ) {}

  static async at(name: string): Promise<Away> {
    const root = join(base, name);
    mkdirSync(root);
    return new Away(await addStation(name, 'linux', ['oxbow@2']), name, root);
  }

  /** Rolls out a look that nobody has yet, confirmed. */
  async rollOut(look: number): Promise<string> {
    const { versionId } = await approvedLook(look);
    const id = await planned({ versions: [versionId], stations: [this.id] });
    await confirmRollout(people.lead, id);
    return id;
  }

  async make(): Promise<Uint8Array> {
    return (await makeCarried(people.librarian, this.id, SERVER)).bytes;
  }

  /** Has the agent there carry a file out. */
  carry(bytes: Uint8Array): { status: number | null; stderr: string; answer: Uint8Array } {
    const file = join(base, `${this.name}-${++this.files}.zip`);
    const back = `${file}.back`;
    writeFileSync(file, bytes);
    const words = ['carry', file, '--root', this.root, '--system', 'linux', '--answer', back];
    const { status, stderr } = spawnSync(process.execPath, ['dist/agent.mjs', ...words], { encoding: 'utf8' });
    return { status, stderr, answer: existsSync(back) ? readFileSync(back) : new Uint8Array() };
  }

  take = (answer: Uint8Array) => takeCarriedAnswer(people.librarian, this.id, answer);

  /** How its files stand, as a person sees it. */
  async states(): Promise<string[]> {
    return (await stationView(people.librarian, this.id)).rows.map(({ state }) => state);
  }
}

describe('a file that is carried to a workstation', () => {
  test('enrols its agent, is carried out, and its answer tells what became of it', async () => {
    const away = await Away.at('Attic');
    const rollout = await away.rollOut(0);
    const made = await makeCarried(people.librarian, away.id, SERVER);
    expect(made.name).toBe(carriedName('Attic'));
    expect(Object.keys(unzipSync(made.bytes))).toEqual(expect.arrayContaining(['etagere-agent.mjs', 'how to.txt']));
    const { status, stderr, answer } = away.carry(made.bytes);
    expect([status, stderr]).toEqual([0, '']);
    const { steps } = await rolloutFor(people.lead, rollout);
    expect(existsSync(join(away.root, must(steps[0]).path))).toBe(true);
    // nothing is known of it here before the answer comes
    expect(must(steps[0]).outcome).toBeNull();
    expect(await away.take(answer)).toEqual({ operations: 1, left: [] });
    const after = await rolloutFor(people.lead, rollout);
    expect([after.rollout.status, must(after.steps[0]).outcome]).toEqual(['done', 'done']);
    expect(await away.states()).toEqual(['launch-due']);
    expect(await carriedThere(people.librarian, away.id)).toMatchObject([
      { words: '1 operation, made by Odile Wren', answered: expect.any(Date) as Date },
    ]);
  });

  test('holds nothing of the token where an agent is there, and goes on where the last one ended', async () => {
    const away = await Away.at('Barn');
    expect((await away.take(away.carry(await away.make()).answer)).operations).toBe(0);
    await away.rollOut(1);
    const second = await away.make();
    expect(Buffer.from(must(unzipSync(second)['carried.json'])).toString()).not.toContain('token');
    expect(await away.take(away.carry(second).answer)).toEqual({ operations: 1, left: [] });
  });

  test('that was lost before any answer came leaves nobody with the only token: the last one made enrols anew', async () => {
    const away = await Away.at('Cabin');
    const [first, second] = [await away.make(), await away.make()];
    const early = away.carry(first).answer;
    await expect(away.take(early)).rejects.toThrow(/as it is enrolled now/);
    // at a machine that the first has enrolled already
    expect(await away.take(away.carry(second).answer)).toEqual({ operations: 0, left: [] });
    expect(Buffer.from(must(unzipSync(await away.make())['carried.json'])).toString()).not.toContain('token');
  });

  test('that comes late tells what it did of a rollout that was dropped: the rest is taken', async () => {
    const away = await Away.at('Cellar');
    const rollout = await away.rollOut(2);
    const bytes = await away.make();
    await transaction((sql) => sql.query("update rollout set status = 'planned' where id = $1", [rollout]));
    await dropRollout(people.lead, rollout);
    const { left } = await away.take(away.carry(bytes).answer);
    expect(left).toEqual(['There is no such rollout.']);
    expect(await away.states()).toEqual(['']);
  });
});

describe('an answer', () => {
  test('is taken once; a second one of the same file is a newer one', async () => {
    const away = await Away.at('Dairy');
    const bytes = await away.make();
    const [first, second] = [away.carry(bytes).answer, away.carry(bytes).answer];
    await away.take(second);
    await expect(away.take(second)).rejects.toThrow(/given already/);
    await expect(away.take(first)).rejects.toThrow(/given already/);
    const later = await away.make();
    await away.take(away.carry(later).answer);
    await expect(away.take(away.carry(later).answer)).resolves.toMatchObject({ operations: 0 });
  });

  test('to a file that a later one has overtaken is not taken', async () => {
    const away = await Away.at('Eaves');
    await away.take(away.carry(await away.make()).answer);
    const early = away.carry(await away.make()).answer;
    await away.take(away.carry(await away.make()).answer);
    await expect(away.take(early)).rejects.toThrow(/overtaken/);
  });

  test('says nothing of how it is there where the agent has reported by itself since', async () => {
    const away = await Away.at('Forge');
    const rollout = await away.rollOut(3);
    const bytes = await away.make();
    const { answer } = away.carry(bytes);
    const { token } = JSON.parse(readFileSync(join(away.root, '.etagere-agent/agent.json'), 'utf8')) as {
      token: string;
    };
    await agent(token);
    await report(token, []);
    const taken = await away.take(answer);
    expect(taken).toMatchObject({ operations: 1, left: [expect.stringMatching(/has reported by itself since/)] });
    expect((await rolloutFor(people.lead, rollout)).rollout.status).toBe('done');
    // the later report said that nothing lies there
    const inventory = await one<{ count: number }>(
      pool(),
      'select count(*)::int as count from inventory where station_id = $1',
      [away.id],
    );
    expect(inventory.count).toBe(0);
  });

  test('that was changed, is of another station, or of an agent that is not let in any more, is refused whole', async () => {
    const [away, other] = [await Away.at('Gate'), await Away.at('Hut')];
    const { answer } = away.carry(await away.make());
    await other.take(other.carry(await other.make()).answer);
    await expect(other.take(answer)).rejects.toThrow(/not sealed by the agent of Hut/);
    const members = unzipSync(answer);
    const said = JSON.parse(Buffer.from(must(members['answer.json'])).toString()) as CarriedAnswer;
    const changed = zipSync({ ...members, 'answer.json': Buffer.from(JSON.stringify({ ...said, number: 7 })) });
    await expect(away.take(changed)).rejects.toThrow(/changed on the way/);
    await expect(away.take(answer.subarray(0, answer.length - 40))).rejects.toThrow(/no ZIP, or it was cut off/);
    await expect(away.take(zipSync({ x: new Uint8Array(3) }))).rejects.toThrow(/no answer of an agent/);
    await revokeToken(people.librarian, away.id);
    await expect(away.take(answer)).rejects.toThrow(/as it is enrolled now/);
    expect(await away.states()).toEqual([]);
  });
});

describe('at the workstation', () => {
  test('a file that was changed, is for another one, or older than the last, is not taken, and writes nothing', async () => {
    const [away, other] = [await Away.at('Inn'), await Away.at('Jetty')];
    away.carry(await away.make());
    await away.rollOut(4);
    const early = await away.make();
    const members = unzipSync(early);
    const json = Buffer.from(must(members['carried.json'])).toString();
    const moved = zipSync({ ...members, 'carried.json': Buffer.from(json.replace('Oxbow/Looks', 'Oxbow/Lurks')) });
    expect(away.carry(moved)).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/changed on the way/) as string,
    });
    const noJson = zipSync({ ...members, 'carried.json': Buffer.from('{') });
    expect(away.carry(noJson)).toMatchObject({ status: 2, stderr: expect.stringMatching(/is damaged/) as string });
    other.carry(await other.make());
    expect(other.carry(early).stderr).toMatch(/it is for Inn, and this is the agent of Jetty/);
    const { stderr } = away.carry(early.subarray(0, 2000));
    expect(stderr).toMatch(/cut off on the way/);
    expect(existsSync(join(away.root, 'Oxbow'))).toBe(false);
    await new Promise((done) => setTimeout(done, 5));
    const late = await away.make();
    expect(away.carry(late).status).toBe(0);
    expect(away.carry(early)).toMatchObject({ status: 2, stderr: expect.stringMatching(/a newer one/) as string });
  });

  test('contents that were changed on the way are not put anywhere', async () => {
    const away = await Away.at('Kiln');
    const rollout = await away.rollOut(5);
    const members = unzipSync(await away.make());
    const { steps } = await rolloutFor(people.lead, rollout);
    const name = contentName(must(must(steps[0]).sha));
    expect(members[name]).toBeTruthy();
    const { answer } = away.carry(zipSync({ ...members, [name]: Buffer.from('something else') }));
    expect(existsSync(join(away.root, must(steps[0]).path))).toBe(false);
    await away.take(answer);
    expect((await rolloutFor(people.lead, rollout)).steps[0]).toMatchObject({
      outcome: 'failed',
      message: 'the contents arrived damaged',
    });
  });
});

test('nothing is carried to a station that is retired, nor by those who do not look after stations', async () => {
  const away = await Away.at('Loft');
  await expect(makeCarried(people.retoucher, away.id, SERVER)).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(takeCarriedAnswer(people.lead, away.id, new Uint8Array())).rejects.toMatchObject({
    code: 'not-allowed',
  });
  await changeStation(people.librarian, away.id, { name: 'Loft', person: '', retired: true });
  await expect(makeCarried(people.librarian, away.id, SERVER)).rejects.toThrow(/is retired/);
});
