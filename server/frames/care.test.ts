import sharp from 'sharp';
import { expect, test } from 'vitest';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people as p, withDatabase } from '../db/testing/database';
import { actorOf } from '../people/roles';
import { archiveFrame, changeFrame } from './care';
import { allFrames, frameChoices, frameFromFile, listFrames } from './service';

withDatabase();

const picture = () =>
  sharp({ create: { width: 90, height: 60, channels: 3, background: '#a63' } })
    .png()
    .toBuffer();
const bring = (name: string) =>
  transaction(async (sql) =>
    frameFromFile(sql, actorOf(p.librarian), {
      name,
      fileName: `${name}.png`,
      sha: await putBlob(sql, await picture()),
      facts: {},
    }),
  );
const named = async (id: string) => (await allFrames(p.librarian)).find((frame) => frame.id === id);

test('a frame is told anew, by those who look after frames', async () => {
  const id = await bring('IMG_1');
  await changeFrame(p.lead, id, { name: '  Blue bowl ', light: 'window', subject: 'ceramics' });
  expect(await named(id)).toMatchObject({ name: 'Blue bowl', light: 'window', subject: 'ceramics' });
  await expect(changeFrame(p.lead, id, { name: ' ' })).rejects.toMatchObject({ code: 'input-invalid' });
  await expect(changeFrame(p.retoucher, id, { name: 'Mine' })).rejects.toMatchObject({ code: 'not-allowed' });
  expect(await named(id)).toMatchObject({ name: 'Blue bowl' });
});

test('one that is put away is offered no more, keeps its picture, and comes back', async () => {
  const id = await bring('IMG_2');
  await archiveFrame(p.librarian, id, { archived: true });
  await archiveFrame(p.librarian, id, { archived: true });
  expect((await listFrames(p.librarian)).some((frame) => frame.id === id)).toBe(false);
  const offered = (await listFrames(p.librarian)).map((frame) => ({ id: frame.id, name: frame.name }));
  expect(await frameChoices(p.librarian)).toEqual(offered);
  expect(await named(id)).toMatchObject({ archived: true, width: 90 });
  await archiveFrame(p.librarian, id, { archived: false });
  expect((await listFrames(p.librarian)).some((frame) => frame.id === id)).toBe(true);
  const events = await many<{ action: string }>(
    pool(),
    `select action from event where subject = 'frame' and subject_id = $1 order by id`,
    [id],
  );
  expect(events.map(({ action }) => action)).toEqual(['made', 'archived', 'brought back']);
});

test('what is not there cannot be put away', async () => {
  await expect(
    archiveFrame(p.librarian, '01a210e5-4862-76ff-8bf1-cca38cebf5bd', { archived: true }),
  ).rejects.toMatchObject({ code: 'not-found' });
});
