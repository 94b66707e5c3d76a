/** Paths that are shown in the file manager of a workstation: asked for, told to its agent, answered. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addStation, agent, enrolled, sha } from '../rollouts/testing/world';
import { instructionsFor, takeReport } from './service';
import { showThere, takeShown, whatWasShown } from './show-there';

withDatabase();

let desk = '';
let card = '';
let token = '';
const [look, onCard] = ['Oxbow/Looks/Wet Clay.cube', 'media/ALDER/LOOKS/CLAY.CUBE'];

async function reports(agentVersion: string): Promise<void> {
  const files = [look, onCard].map((path) => ({ path, size: 1, sha256: sha(path) }));
  const told = { files, digest: sha(`${agentVersion} ${JSON.stringify(files)}`), listings: [], indexes: [] };
  await takeReport(await agent(token), { agentVersion, waiting: null, ...told });
}
const asked = async () => (await instructionsFor(await agent(token))).show;

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, perrinAlder])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  card = await addStation('Card', 'linux', ['perrin-alder@1'], { hostId: desk });
  token = await enrolled(desk, 'linux');
  await reports('0.6.0');
});

describe('a path that somebody wants to see at the workstation', () => {
  test('is told to the agent until it has answered, and whoever asked hears of it', async () => {
    await showThere(people.retoucher, desk, { path: look });
    const { id, path } = must(await asked());
    expect([path, await whatWasShown(people.retoucher, desk)]).toEqual([look, { path: look, fault: '', told: false }]);
    await takeShown(await agent(token), id, { fault: '' });
    expect([await asked(), await whatWasShown(people.lead, desk)]).toEqual([
      undefined,
      { path: look, fault: '', told: true },
    ]);
    // said twice, nothing changes
    await takeShown(await agent(token), id, { fault: 'late' });
    expect((await whatWasShown(people.lead, desk))?.fault).toBe('');
  });

  test('on a card is shown by the agent of its reader; what was asked for before gives way', async () => {
    await showThere(people.retoucher, desk, { path: look });
    const first = must(await asked());
    await showThere(people.librarian, card, { path: onCard });
    const second = must(await asked());
    expect(second.path).toBe(onCard);
    await takeShown(await agent(token), first.id, { fault: '' });
    await takeShown(await agent(token), second.id, { fault: 'xdg-open ended with 3' });
    expect(await whatWasShown(people.librarian, card)).toMatchObject({ fault: 'xdg-open ended with 3', told: true });
    const events = await many<{ action: string }>(pool(), "select action from event where action like '%shown there'");
    expect(events.map(({ action }) => action)).toEqual(['shown there', 'not shown there']);
  });

  test('is not asked for after a while', async () => {
    await showThere(people.retoucher, desk, { path: look });
    await pool().query("update shown_there set asked_at = now() - interval '3 minutes'");
    expect(await asked()).toBeUndefined();
  });

  test('that does not lie there, or where no agent shows it, is refused with what to do', async () => {
    await expect(showThere(people.lead, desk, { path: 'Oxbow/Looks/Other.cube' })).rejects.toThrow(
      /Nothing lies there/,
    );
    await reports('0.5.0');
    await expect(showThere(people.lead, desk, { path: look })).rejects.toMatchObject({
      code: 'show-agent',
      remedy: 'Copy the path instead, and open it by hand.',
    });
    const bare = await addStation('Bare', 'linux', ['oxbow@2']);
    await expect(showThere(people.lead, bare, { path: look })).rejects.toThrow(/No agent is at Bare/);
  });
});
