/** A mapping that grows reads what is held anew, and says before what would change. */
import { beforeAll, expect, test } from 'vitest';
import type { Descriptor } from '@/core/editor/descriptor';
import { must } from '@/core/must';
import { writeCube } from '@/core/look/cube';
import { identity } from '@/core/look';
import { acceptArrival, undoArrival } from '../arrivals/service';
import { arrive } from '../arrivals/testing';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { itemOf } from '../items/testing/item-of';
import { itemFor } from '../items/service';
import { runJob } from '../jobs/service';
import { many } from '../db/query';
import { referencesOf } from '../references/service';
import { addShelf } from '../shelves/service';
import { decideProposal, openProposals, proposeText } from './proposals';
import { effectOnItems, readPresetsAnew } from './reading';
import { bringDescriptor } from './service';

withDatabase();
const halyard: Descriptor = {
  editor: 'halyard',
  version: '1',
  title: 'Halyard 1',
  kind: 'editor',
  systems: ['linux'],
  sees: 'launch',
  listing: {},
  places: {},
  accepts: [],
  presets: {
    container: 'ini',
    recognise: { section: '.', key: 'wrote', value: 'Halyard 1' },
    mapping: {
      title: { step: '.', attribute: 'name' },
      entries: [{ step: '.', attribute: 'exposure', to: 'level', scale: 0.1 }],
    },
  },
};
/** The same with other entries. */
const withEntries = (entries: NonNullable<Descriptor['presets']>['mapping']['entries']): string => {
  const presets = must(halyard.presets);
  return JSON.stringify({ ...halyard, presets: { ...presets, mapping: { ...presets.mapping, entries } } });
};
const more = withEntries([
  { step: '.', attribute: 'exposure', to: 'level', scale: 0.05 },
  { step: '.', attribute: 'shade', to: 'toe' },
]);
let dawn = { itemId: '', versionId: '' };
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, halyard, 'd'));
  const shelf = await addShelf(people.librarian, { name: 'S' });
  dawn = await itemOf('wrote=Halyard 1\nname=Dawn\nexposure=20\nshade=-30\nlut=Amber\n', 'dawn.hy', { shelfId: shelf });
  await itemOf('wrote=Halyard 1\nname=Still\n', 'still.hy', { shelfId: shelf });
  await itemOf(writeCube(identity(3)), 'Amber.cube', { shelfId: shelf, title: 'Amber' });
});
const settingsOf = async () => must((await itemFor(people.librarian, dawn.itemId)).newest).facts.settings;

/** Has the lead take a descriptor, and the job that follows run. */
async function take(text: string): Promise<void> {
  const { id } = await proposeText(people.librarian, text);
  await decideProposal(people.lead, id, { verb: 'take' });
  await readNow();
}

async function readNow(): Promise<void> {
  const jobs = await many<{ id: string }>(pool(), `select id from job where kind = 'read-anew' and status = 'queued'`);
  for (const job of jobs) await runJob(job.id, { 'read-anew': readPresetsAnew });
}

test('what would change is told item by item, and nothing is changed by telling it', async () => {
  const effect = await effectOnItems(people.librarian, more);
  expect(effect.held).toBe(2);
  expect(effect.items).toMatchObject([
    { title: 'Dawn', gained: ['toe'], lost: [], changed: ['level'], unknown: [3, 2], fault: '' },
  ]);
  expect(await settingsOf()).toEqual({ level: 2 });
});

test('a mapping that cannot read what is held says so', async () => {
  const { items } = await effectOnItems(people.librarian, withEntries([{ step: '.', attribute: 'lut', to: 'level' }]));
  expect(must(items[0]).fault).toContain('"Amber" is no number');
  await expect(effectOnItems(people.retoucher, more)).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(effectOnItems(people.librarian, '{')).rejects.toMatchObject({ code: 'descriptor-json' });
});

test('once it is taken, what is held is read by it, with what it refers to', async () => {
  await take(more);
  expect(await settingsOf()).toEqual({ level: 1, toe: -30 });
  const calls = withEntries([
    { step: '.', attribute: 'exposure', to: 'level', scale: 0.05 },
    { step: '.', to: 'look', fields: { name: { attribute: 'lut', as: 'text' } }, constants: { strength: 100 } },
  ]);
  await take(calls);
  expect(await referencesOf(people.librarian, dawn.versionId)).toMatchObject([{ name: 'Amber', state: 'bound' }]);
  await take(more);
  expect(await referencesOf(people.librarian, dawn.versionId)).toEqual([]);
});

test('a descriptor that goes back with its arrival has what is held read by the one before', async () => {
  const bytes = Buffer.from(withEntries([{ step: '.', attribute: 'exposure', to: 'contrast', scale: 0.1 }]));
  const arrival = await arrive({ 'halyard.json': bytes }, 'Another mapping');
  await acceptArrival(people.librarian, arrival, { newShelf: 'Descriptors' });
  await decideProposal(people.lead, must((await openProposals(people.lead))[0]).id, { verb: 'take' });
  await readNow();
  expect(await settingsOf()).toEqual({ contrast: 2 });
  await undoArrival(people.librarian, arrival);
  await readNow();
  expect(await settingsOf()).toEqual({ level: 1, toe: -30 });
});
