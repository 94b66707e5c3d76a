import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { ChangedThere } from './ChangedThere';

const changed = { path: 'Oxbow/Looks/A.cube', gone: false };
const gone = { path: 'Oxbow/Looks/B.cube', gone: true };
const may = { put: true, takeIn: true };

function show(answer: unknown, files = [changed, gone], one = false) {
  const asked = serve({ 'POST /api/stations/desk/changed': answer });
  draw(<ChangedThere station="desk" files={files} may={may} one={one} />);
  return { asked, user: userEvent.setup() };
}

describe('files that were changed there', () => {
  test('get ours again by a plan that is looked at first', async () => {
    const { asked, user } = show({ rollout: 'plan', arrival: null });
    await user.click(screen.getByRole('button', { name: 'Put ours again' }));
    expect(asked[0]?.body).toEqual({ verb: 'put', paths: [changed.path, gone.path] });
    expect(router.push).toHaveBeenCalledWith('/rollouts/plan');
  });

  test('are let be, and one is told that nobody looks after them', async () => {
    const { asked, user } = show({ rollout: null, arrival: null });
    await user.click(screen.getByRole('button', { name: 'Let theirs be' }));
    expect(asked[0]?.body).toMatchObject({ verb: 'keep' });
    expect(await screen.findByText('2 files here are looked after no longer.')).toBeTruthy();
    expect(router.refresh).toHaveBeenCalledOnce();
  });

  test('come in as far as they are there', async () => {
    const { asked, user } = show({ rollout: null, arrival: 'in' });
    await user.click(screen.getByRole('button', { name: 'Take theirs in' }));
    expect(asked[0]?.body).toEqual({ verb: 'take-in', paths: [changed.path] });
    expect(router.push).toHaveBeenCalledWith('/intake/in');
  });

  test('one that is gone has nothing to take in; its buttons are told apart by its name', () => {
    show({}, [gone], true);
    expect(screen.getByRole('button', { name: `Put ours again: ${gone.path}` })).toBeTruthy();
    expect(screen.getByRole('button', { name: `Let it be gone: ${gone.path}` })).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Take theirs in/ })).toBeNull();
  });

  test('what the server refuses is said', async () => {
    const { user } = show(() => refusal({ code: 'not-approved', message: 'It is retired.', where: '', remedy: 'x' }));
    await user.click(screen.getByRole('button', { name: 'Put ours again' }));
    expect(await screen.findByText(/It is retired\./)).toBeTruthy();
    expect(router.push).not.toHaveBeenCalled();
  });
});
