/**
 * Twenty at once, for every kind of thing that is decided, begun or taken back: as many come through as may, and everybody
 * else is told so in words, never by a fault of ours.
 */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { cubeOf } from '@/demo/files';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import {
  acceptArrival,
  arrivalFor,
  beginArrival,
  discardArrival,
  dropArrival,
  finishUpload,
  readAgain,
  readArrival,
  undoArrival,
  uploadPart,
} from './arrivals/service';
import { collectContents } from './blobs/collect';
import { mergeItems } from './copies/service';
import { refusalOf } from './db/faults';
import { pool, transaction } from './db/pool';
import { people, withDatabase } from './db/testing/database';
import { decideProposal, proposeText } from './editors/proposals';
import { bringDescriptor } from './editors/service';
import { cancelJob, endHopelessJobs, runJob } from './jobs/service';
import { addLicence } from './licences/service';
import { addPerson, signIn } from './people/service';
import { changePassword, endSession, sessionsOf, setActive } from './people/sessions';
import { planAgain, planRollout } from './rollouts/planning';
import { confirmRollout, dropRollout, leaveOut, planFor, takeResults, undoRollout } from './rollouts/service';
import { addStation, agent, approvedLook, carryOut, done, enrolled, planned, report } from './rollouts/testing/world';
import { addShelf, removeShelf } from './shelves/service';
import { enrol, makeCode, revokeToken } from './stations/service';
import { convertPreset } from './versions/convert';
import { retire } from './versions/service';

withDatabase();
const TIMES = 20;
const librarian = () => people.librarian;
let desk = '';
let token = '';
beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  token = await enrolled(desk, 'linux');
  await report(token, []);
});

let arrivals = 0;
/** An arrival that is read; of a table of its own. */
async function arrived(): Promise<string> {
  const n = ++arrivals;
  const bytes = Buffer.from(cubeOf({ title: `Race ${n}`, headings: [], settings: { warmth: n * 17 } }, 5));
  const begun = await beginArrival(librarian(), { name: `Race ${n}`, files: [{ path: 'a.cube', size: bytes.length }] });
  const { id } = must(begun.files[0]);
  await uploadPart(librarian(), id, 0, bytes);
  await finishUpload(librarian(), id);
  await runJob(must((await arrivalFor(librarian(), begun.arrival)).arrival.job_id), { arrival: readArrival });
  return begun.arrival;
}
const accepted = async (): Promise<string> => {
  const id = await arrived();
  await acceptArrival(librarian(), id, { newShelf: `Shelf of ${id}` });
  return id;
};
let looks = 0;
const look = () => approvedLook(looks++);
const plan = async () => planned({ versions: [(await look()).versionId], stations: [desk] });
const confirmed = async () => {
  const id = await plan();
  await confirmRollout(librarian(), id);
  return id;
};
const carriedOut = async () => {
  const id = await confirmed();
  // whatever else waits for the station comes first
  while ((await carryOut(token)).length);
  return id;
};
let guests = 0;
const password = 'a password of ten';
const guest = async () =>
  addPerson(people.lead, {
    name: 'Guest',
    email: `guest${++guests}@x.example`,
    role: 'retoucher',
    password,
  });

interface Race {
  name: string;
  /** how many of twenty come through; "any" where each may, or none after the first */ through: number | 'any';
  /** makes what they race for; answers with what each does */ begin: () => Promise<(n: number) => Promise<unknown>>;
}
const race = (name: string, through: Race['through'], begin: Race['begin']): Race => ({ name, through, begin });

const races: readonly Race[] = [
  race('an arrival is accepted', 1, async () => {
    const id = await arrived();
    return () => acceptArrival(librarian(), id, { newShelf: `S ${id}` });
  }),
  race('an arrival is accepted or discarded', 'any', async () => {
    const id = await arrived();
    return (n) => (n % 2 ? acceptArrival(librarian(), id, { newShelf: `S ${id}` }) : discardArrival(librarian(), id));
  }),
  race('an arrival is put back', 1, async () => {
    const id = await accepted();
    return () => undoArrival(librarian(), id);
  }),
  race('an arrival is read again', 1, async () => {
    const id = await arrived();
    return () => readAgain(librarian(), id);
  }),
  race('an upload is finished', 'any', async () => {
    const begun = await beginArrival(librarian(), { name: 'x', files: [{ path: 'x', size: 3 }] });
    const { id } = must(begun.files[0]);
    await uploadPart(librarian(), id, 0, Buffer.from('abc'));
    return (n) => (n % 4 === 3 ? dropArrival(librarian(), begun.arrival) : finishUpload(librarian(), id));
  }),
  race('a rollout is confirmed', 1, async () => {
    const id = await plan();
    return () => confirmRollout(librarian(), id);
  }),
  race('a plan is confirmed, dropped or worked out again', 'any', async () => {
    const id = await plan();
    return (n) =>
      must([confirmRollout, dropRollout, planAgain][n % 3])(librarian(), id).finally(() =>
        pool().query(`update rollout set status = 'dropped' where id = $1 and status = 'planning'`, [id]),
      );
  }),
  race('a rollout is undone', 1, async () => {
    const id = await carriedOut();
    return () => undoRollout(librarian(), id);
  }),
  race('what waits is left out', 1, async () => {
    const id = await confirmed();
    return () => leaveOut(librarian(), id, { station: desk });
  }),
  race('results are reported', TIMES, async () => {
    while ((await carryOut(token)).length);
    await confirmed();
    const own = await agent(token);
    const given = must(await planFor(own));
    return () => takeResults(own, given.id, { results: done(given.operations) });
  }),
  race('a rollout is begun', TIMES, async () => {
    const { versionId } = await look();
    return () => planRollout(librarian(), { versions: [versionId], stations: [desk] });
  }),
  race('a version is retired', 1, async () => {
    const { versionId } = await look();
    return () => retire(librarian(), versionId);
  }),
  race('two items are merged, either way round', 1, async () => {
    const [one, other] = [await look(), await look()];
    return (n) =>
      mergeItems(
        librarian(),
        n % 2 ? { keep: one.itemId, others: [other.itemId] } : { keep: other.itemId, others: [one.itemId] },
      );
  }),
  race('a look is asked of something that is none', 0, async () => {
    const { versionId } = await look();
    return () => convertPreset(librarian(), { versionId });
  }),
  race('a shelf is made', 1, async () => () => addShelf(librarian(), { name: 'One of twenty' })),
  race('a shelf is removed', 1, async () => {
    const id = await addShelf(librarian(), { name: 'To be removed' });
    return () => removeShelf(librarian(), id);
  }),
  race('a licence is made', 1, async () => () => addLicence(librarian(), { name: 'One of twenty' })),
  race('a descriptor is decided on', 1, async () => {
    const { id } = await proposeText(librarian(), JSON.stringify({ ...oxbow2, title: 'Oxbow 2, raced' }));
    return (n) => decideProposal(people.lead, id, { verb: n % 2 ? 'take' : 'decline' });
  }),
  race('an agent trades its code', 1, async () => {
    const code = await makeCode(pool(), await addStation('Enrolled once', 'linux', ['oxbow@2']));
    return () => enrol({ code, system: 'linux', host: 'h', agentVersion: '1' });
  }),
  race('a token is revoked', TIMES, async () => {
    const id = await addStation('Revoked', 'linux', ['oxbow@2']);
    await enrolled(id, 'linux');
    return () => revokeToken(librarian(), id);
  }),
  race('a station reports', TIMES, async () => {
    const own = await enrolled(await addStation('Busy', 'linux', ['oxbow@2']), 'linux');
    return (n) => report(own, [{ path: `Oxbow/Looks/${n}.cube`, size: n, sha256: 'a'.repeat(64) }]);
  }),
  race(
    'a person is added',
    1,
    async () => () => addPerson(people.lead, { name: 'Once', email: 'once@x.example', role: 'retoucher', password }),
  ),
  race('a session is ended', 1, async () => {
    const person = await guest();
    const { token: own } = await signIn(person.email, password, 'here', 'a');
    const [session] = await sessionsOf(person, own);
    return () => endSession(person, must(session).id);
  }),
  race('a password is changed', 1, async () => {
    const person = await guest();
    const { token: own } = await signIn(person.email, password, 'here', 'a');
    return (n) => changePassword(person, own, { current: password, password: `another password ${n}` });
  }),
  race('a person is let in and not', TIMES, async () => {
    const { email } = await guest();
    return (n) => setActive(people.lead, email, n % 2 === 0);
  }),
  race('a job is stopped', TIMES, async () => {
    const id = await planRollout(librarian(), { versions: [(await look()).versionId], stations: [desk] });
    const { rows } = await pool().query('select job_id from rollout where id = $1', [id]);
    return () => cancelJob(librarian(), (must(rows[0]) as { job_id: string }).job_id);
  }),
  race(
    'contents are collected, and jobs looked after',
    TIMES,
    async () => async (n) => (n % 2 ? collectContents(people.lead, 1) : endHopelessJobs({})),
  ),
];

describe('twenty at once', () => {
  test.each(races)('$name', async ({ through, begin }) => {
    const act = await begin();
    const settled = await Promise.allSettled(Array.from({ length: TIMES }, (_, n) => act(n)));
    const refused = settled.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
    // a fault that is no Problem, nor one that the database's own rules turn into one, is ours
    for (const reason of refused) {
      const problem = reason instanceof Problem ? reason : refusalOf(reason);
      expect(problem, String(reason)).toBeInstanceOf(Problem);
      expect(problem?.remedy).toBeTruthy();
    }
    const came = TIMES - refused.length;
    if (through === 'any') expect(came).toBeGreaterThan(0);
    else expect(came).toBe(through);
  });
});
