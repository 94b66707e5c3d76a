import { tmpdir } from 'node:os';
import { Readable } from 'node:stream';
import { describe, expect, test } from 'vitest';
import pg from 'pg';
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { people, withDatabase } from '../db/testing/database';
import { databaseUrl, pool, transaction } from '../db/pool';
import { eventsSince, record, thisMoment } from '../activity/queries';
import { activityOfItem, listActivity } from '../activity/service';
import { collectContents, measureContents } from '../blobs/collect';
import { backupFor, restoreFor } from '../backup/service';
import { decideProposal, openProposals, proposeText } from '../editors/proposals';
import { descriptorJson, listEditors, listTakings } from '../editors/service';
import { copies, markMeant, mergeItems } from '../copies/service';
import { retire, writeIntoFile } from '../versions/service';
import { clearRibbons, listRibbons, orderRibbons } from '../ribbons/service';
import { foundCount, takeInFound } from '../stations/station-arrival';
import { convertPreset, previewConversion } from '../versions/convert';
import { freshCount, markSeen } from '../search/fresh';
import { searchCounts, searchItems, searchShelves } from '../search/service';
import { inspectionById, itemFor, listShelves, setRibbon, renderingFor } from '../items/service';
import { confirmEncoding } from '../items/encoding';
import { approve } from '../items/approval';
import { applyBulk, archiveItems, editItem, previewBulk } from '../items/edit';
import {
  addShelf,
  changeShelf,
  moveItems,
  orderByHeadings,
  orderShelves,
  putAway,
  removeShelf,
} from '../shelves/service';
import { askFor, coverage, explain, keepGear, listSeen, removeGear, trackRequest } from '../gear/service';
import { foretellFor } from '../gear/foretell';
import { addLicence, changeLicence, listLicences } from '../licences/service';
import { derive, previewDerived } from '../versions/derive';
import { addChart, layChartOut, listCharts, placeChart } from '../charts/service';
import { addExport, exportPicture, listExports, removeExport } from '../frames/exports';
import { framePart, fullSize } from '../frames/full';
import { cancelJob } from '../jobs/service';
import {
  acceptArrival,
  arrivalView,
  beginArrival,
  beginUpload,
  correctEntries,
  dropArrival,
  undoArrival,
  discardArrival,
  finishUpload,
  arrivalFor,
  listArrivals,
  uploadPart,
} from '../arrivals/service';
import { planFavorites } from '../favorites/service';
import { planOpening, setOpening, takeRule } from '../opening/service';
import { planRollout } from '../rollouts/planning';
import { planRemovalOfItems } from '../rollouts/removal';
import { confirmRollout, dropRollout, listRollouts, undoRollout } from '../rollouts/service';
import {
  baseTable,
  candidatesFor,
  keepAnchored,
  listBenches,
  listSets,
  moreCandidates,
  removeBench,
  saveBench,
  saveSet,
} from '../bench/service';
import { decide, listChoices, removeChoice, verdictsOf } from '../bench/decide';
import { linearPicture } from '../frames/service';
import { setReview } from '../studio/review';
import { setCopyTolerance, setProofLimits } from '../studio/service';
import { runEditor } from '../stations/launcher';
import { takeExport } from '../sightings/result';
import { askForPictures, giveUpSighting } from '../sightings/service';
import { makeCarried, takeCarriedAnswer } from '../stations/carried';
import { addStation, newCode } from '../stations/service';
import { setIgnored } from '../stations/ignored';
import { showThere, whatWasShown } from '../stations/show-there';
import { fleet } from '../stations/fleet';
import { stationChoices, stationViews } from '../stations/views';
import { setActive, signOutEverywhere } from './sessions';
import { invite, newLink } from './invitations';
import { changePerson, peopleFor, signOutPerson } from './manage';
import { addPerson, personOf, signIn, signOut } from './service';
import { actions, may, roles, type Action, type Person } from './roles';
import { many } from '../db/query';

withDatabase();
const id = v7();

/** One call of the service layer for each action at least; what it is given does not exist, so that who may gets past the door and no further. */
const calls: Record<Action, ((p: Person) => Promise<unknown>)[]> = {
  view: [
    listTakings,
    coverage,
    (p) => explain(p, { photos: [{ kind: 'rendered' }] }),
    (p) => foretellFor(p, id, id),
    freshCount,
    markSeen,
    listShelves,
    (p) => searchShelves(p, {}),
    (p) => searchItems(p, {}),
    (p) => searchCounts(p, {}),
    listLicences,
    listEditors,
    listRibbons,
    (p) => copies(p),
    (p) => activityOfItem(p, id),
    (p) => foundCount(p, id),
    (p) => descriptorJson(p, 'x@1', null),
    listRollouts,
    (p) => stationViews(p, [id]),
    fleet,
    stationChoices,
    (p) => itemFor(p, id),
    listBenches,
    openProposals,
    listSets,
    listChoices,
    (p) => verdictsOf(p, id),
    (p) => candidatesFor(p, [id]),
    (p) => moreCandidates(p, { items: [id] }),
    (p) => baseTable(p, { frame: id, version: 'plain' }),
    (p) => linearPicture(p, id, 320),
    (p) => fullSize(p, id),
    (p) => renderingFor(p, id, 0, ''),
    listCharts,
    listExports,
    (p) => exportPicture(p, id, 320),
    (p) => framePart(p, id, { x: 0, y: 0, w: 1, h: 1 }),
    (p) => inspectionById(p, id),
  ],
  'ribbon.own': [
    (p) => setRibbon(p, id, { on: true, whose: 'mine' }),
    (p) => putAway(p, id, true),
    (p) => clearRibbons(p, { whose: 'mine', ribbons: [1] }),
  ],
  'ribbon.house': [
    (p) => setRibbon(p, id, { on: true, whose: 'house' }),
    (p) => clearRibbons(p, { whose: 'house', ribbons: [1] }),
    (p) => orderRibbons(p, { whose: 'house', ribbons: [1] }),
  ],
  'arrival.read': [listArrivals, (p) => arrivalFor(p, id), (p) => arrivalView(p, id)],
  'arrival.make': [
    (p) => beginUpload(p, { name: 'x', size: 1 }),
    (p) => uploadPart(p, id, 0, Buffer.alloc(1)),
    (p) => finishUpload(p, id),
    (p) => cancelJob(p, id),
    (p) => beginArrival(p, { name: 'x', files: [{ path: 'x', size: 1 }] }),
    (p) => dropArrival(p, id),
    (p) => takeInFound(p, id),
    (p) => setIgnored(p, id, { verb: 'ignore', paths: ['x'] }),
  ],
  'arrival.accept': [
    (p) => acceptArrival(p, id, { entries: [1], shelfId: id }),
    (p) => discardArrival(p, id),
    (p) => correctEntries(p, id, { entries: [1], outcome: 'new' }),
    (p) => undoArrival(p, id),
  ],
  'editor.propose': [(p) => proposeText(p, '{}')],
  'editor.describe': [(p) => decideProposal(p, id, { verb: 'take' })],
  'shelf.edit': [
    (p) => addShelf(p, { name: `S ${p.role}` }),
    (p) => changeShelf(p, id, { name: 'x' }),
    (p) => removeShelf(p, id),
    (p) => orderShelves(p, { shelves: [id] }),
  ],
  'search.save': [(p) => addShelf(p, { name: `Q ${p.role}`, query: { q: 'kiln' } })],
  'proof.set': [(p) => setProofLimits(p, { mean: 0.4, max: 2 })],
  'review.set': [(p) => setReview(p, { asked: false })],
  'studio.set': [(p) => setCopyTolerance(p, { p95: 0.5, max: 2 })],
  'activity.view': [(p) => listActivity(p, {})],
  backup: [
    (person) =>
      backupFor(person).then(async (given) => {
        given.stream.resume();
        await given.done;
      }),
  ],
  'content.collect': [(p) => measureContents(p), (p) => collectContents(p)],
  restore: [(p) => restoreFor(p, Readable.from(['no backup']), tmpdir())],
  'item.archive': [(p) => archiveItems(p, { items: [id], archived: true })],
  'licence.edit': [(p) => addLicence(p, { name: `L ${p.role}` }), (p) => changeLicence(p, id, { name: 'x' })],
  'item.edit': [
    (person) =>
      confirmEncoding(person, id, {
        primaries: 'sRGB',
        transfer: 'sRGB',
        range: 'full',
        referred: 'display',
        white: 'D65',
      }),
    (p) => editItem(p, id, { revision: 1, base: {}, mine: { title: 'x' } }),
    (p) => previewBulk(p, { items: [id] }),
    (p) => applyBulk(p, { items: [id] }),
    (p) => moveItems(p, { items: [id], shelfId: id }),
    (p) => orderByHeadings(p, id),
    (p) => mergeItems(p, { keep: id, others: [v7()] }),
    (p) => markMeant(p, { items: [id, v7()] }),
    (p) => writeIntoFile(p, id),
  ],
  'item.convert': [
    (p) => previewConversion(p, id, 9),
    (p) => convertPreset(p, { versionId: id }),
    (p) => previewDerived(p, id, { form: 'cube' }),
    (p) => derive(p, id, { form: 'cube' }),
  ],
  'gear.ask': [(p) => askFor(p, { about: `G ${p.role}`, wanted: 'camera profile' })],
  'gear.edit': [
    (p) => keepGear(p, 'camera', null, { model: `C ${p.role}` }),
    (p) => keepGear(p, 'lens', null, { model: `L ${p.role}` }),
    (p) => removeGear(p, 'lens', id),
    (p) => trackRequest(p, id, { state: 'sent' }),
    listSeen,
  ],
  'bench.save': [(p) => saveBench(p, null, { name: `B ${p.role}`, state: '' }), (p) => removeBench(p, id)],
  'verdict.give': [(p) => decide(p, { look: id, strength: 100, frames: [id], chosen: true, display: {} })],
  'choice.make': [
    (p) => decide(p, { look: id, strength: 100, frames: [id], chosen: true, choice: {}, display: {} }),
    (p) => removeChoice(p, 0),
  ],
  'opening.set': [
    (p) => setOpening(p, { revision: -1, rules: [] }),
    (p) => takeRule(p, { station: id, editor: 'x', version: '1', rule: 'any photo' }),
  ],
  'frame.edit': [
    (p) => addChart(p, { text: 'x', name: `C ${p.role}` }),
    (p) => placeChart(p, id, { chart: null }),
    (p) => layChartOut(p, id, { columns: 1, outside: 0 }),
    (p) => addExport(p, id, 'x', new Uint8Array(1)),
    (p) => removeExport(p, id),
    (p) => saveSet(p, { name: `F ${p.role}`, frames: [id] }),
  ],
  'profile.edit': [(p) => keepAnchored(p, { version: id, frame: id, white: 'as', kelvin: 5000, title: 'x' })],
  'item.approve': [(p) => approve(p, id), (p) => retire(p, id)],
  'rollout.plan': [
    (p) => planRollout(p, { versions: [id], stations: [id] }),
    (p) => planRemovalOfItems(p, { items: [id] }),
    (p) => dropRollout(p, id),
    (p) => planFavorites(p, { places: [{ station: id, editor: 'x', version: '1' }] }),
    (p) => planOpening(p, { places: [{ station: id, editor: 'x', version: '1' }] }),
  ],
  'rollout.confirm': [(p) => confirmRollout(p, id), (p) => undoRollout(p, id)],
  'station.enrol': [
    (p) => addStation(p, { name: `T ${p.role}`, system: 'linux' }),
    (p) => newCode(p, id),
    (p) => makeCarried(p, id, 'http://x.example'),
    (p) => takeCarriedAnswer(p, id, new Uint8Array(1)),
  ],
  'sighting.ask': [
    (p) => askForPictures(p, id, { paths: ['x'], frame: id, by: 'editor' }),
    (p) => giveUpSighting(p, id),
    (p) => takeExport(p, id, new Uint8Array(1)),
  ],
  'station.show': [(p) => showThere(p, id, { path: 'x' }), (p) => whatWasShown(p, id)],
  'station.editor': [(p) => runEditor(p, id, { editor: 'oxbow@2', verb: 'launch' })],
  'person.manage': [
    (p) => changePerson(p, id, { active: true }),
    (p) => signOutPerson(p, id),
    (p) => setActive(p, 'nobody@x.example', true),
    (p) => signOutEverywhere(p, 'nobody@x.example'),
  ],
  'person.view': [peopleFor],
  'person.add': [
    (p) => invite(p, { name: 'N', email: `i-${p.role}@test.example`, role: 'retoucher' }),
    (p) => newLink(p, id),
    (person) =>
      addPerson(person, {
        name: 'N',
        email: `n-${person.role}@test.example`,
        role: 'retoucher',
        password: 'a long password',
      }),
  ],
};
const table = (Object.keys(actions) as Action[]).flatMap((action) =>
  roles.flatMap((role) => calls[action].map((call, i) => [role, action, i, call] as const)),
);

describe('roles', () => {
  test('every action has calls that are walked through', () => {
    for (const a of Object.keys(actions) as Action[]) expect(calls[a].length, a).toBeGreaterThan(0);
  });
  test.each(table)('a %s and %s (%d)', async (role, action, _i, call) => {
    const outcome = await call(people[role]).then(
      () => 'through',
      (e: { code?: string }) => e.code ?? String(e),
    );
    if (may({ role }, action)) expect(outcome).not.toBe('not-allowed');
    else expect(outcome).toBe('not-allowed');
  });
});

describe('sign-in', () => {
  test('gives a session that can be ended', async () => {
    const { token } = await signIn('ODILE@test.example ', 'a long password', 'here', 'test');
    expect((await personOf(token))?.role).toBe('librarian');
    await signOut(token);
    expect(await personOf(token)).toBeNull();
    expect(await personOf('nonsense')).toBeNull();
  });
  test('keeps neither passwords nor tokens', async () => {
    const { token } = await signIn('odile@test.example', 'a long password', 'here', 'test');
    const all =
      JSON.stringify(await many(pool(), 'select password_hash from person')) +
      JSON.stringify(await many(pool(), `select encode(token_sha256, 'escape') as t from session`));
    expect(all).toContain('$argon2id$');
    expect(all).not.toContain('a long password');
    expect(all).not.toContain(token);
  });
  const outcomeOf = (email: string, password: string, network: string) =>
    signIn(email, password, network, 't').then(
      () => 'in',
      (error: unknown) => (error as Problem).code,
    );

  test('of two hundred guesses at once, no more are looked at than are free', async () => {
    const began = Date.now();
    const guesses = Array.from({ length: 200 }, (_, n) => outcomeOf('mirre@test.example', `guess ${n}`, '192.0.2.1'));
    const outcomes = await Promise.all(guesses);
    const seconds = (Date.now() - began) / 1000;
    const wrong = outcomes.filter((outcome) => outcome === 'sign-in-wrong').length;
    // five are free; then one after 2 s, one after 4 s more, and so on, where the guesses took so long
    const waits = [2, 6, 14, 30, 62].filter((passed) => passed <= seconds).length;
    expect(wrong).toBeGreaterThanOrEqual(5);
    expect(wrong).toBeLessThanOrEqual(5 + waits);
    expect(outcomes.filter((outcome) => outcome === 'sign-in-limit')).toHaveLength(200 - wrong);
    // not with the right one either, until the wait is over, however long the guesses took
    await pool().query('update sign_in_failure set at = now()');
    expect(await outcomeOf('mirre@test.example', 'a long password', '192.0.2.1')).toBe('sign-in-limit');
    await pool().query(`update sign_in_failure set at = at - interval '130 seconds'`);
    expect(await outcomeOf('mirre@test.example', 'a long password', '192.0.2.1')).toBe('in');
    // who came in begins anew
    expect(await outcomeOf('mirre@test.example', 'wrong', '192.0.2.1')).toBe('sign-in-wrong');
  });

  test('others’ tries keep nobody out where the person is known, nor from another account', async () => {
    expect(await outcomeOf('odile@test.example', 'a long password', '192.0.2.2')).toBe('in');
    for (let network = 0; network < 45; network++)
      await outcomeOf('odile@test.example', 'wrong', `198.51.100.${network}`);
    expect(await outcomeOf('odile@test.example', 'a long password', '203.0.113.9')).toBe('sign-in-limit');
    expect(await outcomeOf('odile@test.example', 'a long password', '192.0.2.2')).toBe('in');
    expect(await outcomeOf('piet@test.example', 'a long password', '203.0.113.9')).toBe('in');
  });
  test('the first person needs no one’s leave, a second without one is refused', async () => {
    await expect(
      addPerson(null, { name: 'X', email: 'x@test.example', role: 'lead', password: 'a long password' }),
    ).rejects.toMatchObject({ code: 'not-allowed' });
  });
  test('a weak password or a strange address is refused with a sentence for each', async () => {
    await expect(
      addPerson(people.librarian, { name: '', email: 'nowhere', role: 'lead', password: 'short' }),
    ).rejects.toMatchObject({
      code: 'input-invalid',
      message: expect.stringMatching(/A name is needed.*This is no e-mail address.*10 characters/) as string,
    });
  });
});

describe('the event log', () => {
  test('a transaction that commits late is not missed, and hides nothing that others do meanwhile', async () => {
    const actor = { personId: null, name: 'test' };
    const slow = new pg.Client({ connectionString: databaseUrl() });
    await slow.connect();
    let at = await thisMoment(pool());
    const come = async () => {
      const { events, moment } = await eventsSince(pool(), at);
      at = moment;
      return events.map((event) => event.subject_id);
    };
    await slow.query('begin');
    // it has a number of its own long before the other, and an event with a lower one
    await record(slow, actor, 'job', 'slow', 'running');
    await transaction((sql) => record(sql, actor, 'job', 'quick', 'done'));
    expect(await come()).toEqual(['quick']);
    expect(await come()).toEqual([]);
    await slow.query('commit');
    await slow.end();
    expect(await come()).toEqual(['slow']);
    expect(await come()).toEqual([]);
  });
});
