/** Opening rules: the studio's list, what two editors at a station have, a rollout of it, and what people changed there. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { bytesOf, getBlob } from '../blobs/service';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { confirmRollout, rolloutFor, undoRollout } from '../rollouts/service';
import { addStation, agent, carryOut, enrolled, sha } from '../rollouts/testing/world';
import { instructionsFor, takeReport } from '../stations/service';
import { openingFor, planOpening, setOpening, takeRule, type OpeningView } from './service';

withDatabase();

const OXBOW = 'Library/Application Support/Oxbow/opening.rules';
const TESSEL = 'Library/Application Support/Tessel/tessel.json#chosen/opening';
let desk = '';
let token = '';
const texts = new Map<string, string>();
const kept = new Map<string, string>();

function write(path: string, text: string): void {
  kept.set(sha(text), text);
  texts.set(path, text);
}
async function tell(): Promise<void> {
  const station = await agent(token);
  const { indexes } = await instructionsFor(station);
  expect(indexes).toEqual(expect.arrayContaining([OXBOW, TESSEL]));
  const files = [...texts].map(([path, text]) => ({ path, sha256: sha(text), size: text.length }));
  await takeReport(station, {
    agentVersion: '0.3.0',
    files,
    digest: sha(JSON.stringify(files)),
    listings: [],
    indexes: [...texts].map(([path, text]) => ({ path, text })),
    waiting: null,
  });
}
async function apply(): Promise<void> {
  for (const { do: what, path, sha256 } of await carryOut(token)) {
    if (what === 'remove') texts.delete(path);
    else write(path, kept.get(must(sha256)) ?? (await getBlob(bytesOf(must(sha256)))).toString('utf8'));
  }
  await tell();
}

const rules = [
  { when: { camera: 'Perrin Alder, infrared' }, start: { lens: 'none', exposure: 'applied, shown as zero' } },
  { when: {}, start: { lens: 'matched', noise: 'color' } },
];
const places = () => ['oxbow@2', 'tessel@7'].map((one) => at(one));
const at = (editor: string) => {
  const [id = '', version = ''] = editor.split('@');
  return { station: desk, editor: id, version };
};
const viewOf = async (path: string): Promise<OpeningView> =>
  must((await openingFor(people.retoucher)).lists.find((one) => one.path === path));

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, tessel7])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  desk = await addStation('Desk', 'macos', ['oxbow@2', 'tessel@7']);
  token = await enrolled(desk, 'macos');
  write(OXBOW, '# ours at the desk\nfile = print => grain = keep\n');
  await tell();
});

describe('opening rules', () => {
  test('are the studio’s, all at once; the second of two is told', async () => {
    await setOpening(people.lead, { revision: 0, rules });
    await expect(setOpening(people.librarian, { revision: 0, rules: [] })).rejects.toMatchObject({
      code: 'edited-meanwhile',
    });
    const twice = [...rules, { when: {}, start: { noise: 'none' } }];
    await expect(setOpening(people.lead, { revision: 1, rules: twice })).rejects.toMatchObject({ code: 'rule-twice' });
    await expect(setOpening(people.retoucher, { revision: 1, rules: [] })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    expect((await openingFor(people.retoucher)).rules).toEqual(rules);
  });

  test('are compared with each editor’s own, and it is said what an editor has no words for', async () => {
    const oxbow = await viewOf(OXBOW);
    expect(oxbow.state).toBe('update-due');
    expect(oxbow.rows.map(({ words, mark }) => [words, mark])).toEqual([
      ['Perrin Alder, infrared', 'ours'],
      ['rendered SDR', 'theirs'],
      ['any photo', 'ours'],
    ]);
    expect(oxbow.cannot).toEqual([
      { words: 'Perrin Alder, infrared', what: ['Exposure offset in the file: applied, shown as zero'] },
    ]);
    expect((await viewOf(TESSEL)).cannot).toEqual([]);
  });

  test('are written by a rollout into a file and a bundle, and undone', async () => {
    const before = texts.get(OXBOW);
    const { rollout } = await planOpening(people.librarian, { places: places() });
    const { rollout: planned, steps } = await rolloutFor(people.librarian, rollout);
    expect(planned.title).toBe('Opening rules at Desk');
    expect(steps.map(({ note }) => note)).toEqual([
      'adds the rule for Perrin Alder, infrared; any photo; keeps 1 rule of their own; leaves out what it has no words for: Exposure offset in the file: applied, shown as zero',
      'adds the rule for Perrin Alder, infrared; any photo',
    ]);
    await confirmRollout(people.lead, rollout);
    await apply();
    expect(texts.get(OXBOW)).toBe(
      [
        'body = Perrin Alder, infrared => correct = never',
        '# ours at the desk',
        'file = print => grain = keep',
        '=> correct = by name; grain = lift specks',
        '',
      ].join('\n'),
    );
    expect(JSON.parse(must(texts.get(TESSEL)))).toEqual([
      { seen: { camera: 'Perrin Alder, infrared' }, laid: { optics: 0, stops: 'hidden' } },
      { seen: {}, laid: { optics: 1, calm: 1 } },
    ]);
    expect((await openingFor(people.lead)).lists.map(({ state }) => state)).toEqual(['in-step', 'in-step']);
    await undoRollout(people.lead, rollout);
    await apply();
    expect([texts.get(OXBOW), texts.has(TESSEL)]).toEqual([before, false]);
    expect((await viewOf(OXBOW)).state).toBe('update-due');
  });

  test('that somebody changed there stay so until the studio’s are to go over them', async () => {
    const { rollout } = await planOpening(people.librarian, { places: places() });
    await confirmRollout(people.lead, rollout);
    await apply();
    write(OXBOW, must(texts.get(OXBOW)).replace('grain = lift specks', 'grain = keep'));
    await tell();
    const view = await viewOf(OXBOW);
    expect(view.state).toBe('in-step');
    expect(view.rows.find(({ words }) => words === 'any photo')?.cells.noise).toEqual({
      is: 'none',
      should: 'color',
      will: 'none',
    });
    const over = await planOpening(people.librarian, { places: [at('oxbow@2')], insist: true });
    await confirmRollout(people.lead, over.rollout);
    await apply();
    expect(texts.get(OXBOW)).toContain('grain = lift specks');
  });

  test('of an editor there become the studio’s', async () => {
    await takeRule(people.librarian, { ...at('oxbow@2'), rule: 'rendered SDR' });
    expect((await openingFor(people.lead)).rules.at(-1)).toEqual({
      when: { input: 'rendered SDR' },
      start: { noise: 'none' },
    });
    await expect(takeRule(people.librarian, { ...at('oxbow@2'), rule: 'rendered SDR' })).rejects.toMatchObject({
      code: 'rule-twice',
    });
    write(OXBOW, `${must(texts.get(OXBOW))}moon = full => grain = keep\n`);
    await tell();
    await expect(takeRule(people.librarian, { ...at('oxbow@2'), rule: 'a full moon' })).rejects.toMatchObject({
      code: 'not-found',
    });
  });

  test('that cannot be read are left alone', async () => {
    write(OXBOW, 'no rule at all');
    await tell();
    expect(await viewOf(OXBOW)).toMatchObject({
      state: 'unread',
      reason: 'The opening rules cannot be read: line 1 is no rule. They are left as they are.',
    });
    await expect(planOpening(people.librarian, { places: [at('oxbow@2')] })).rejects.toMatchObject({
      code: 'opening-nothing',
    });
  });
});
