import { screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { JobProgress } from './JobProgress';

const job = (part: object) => ({
  id: 'job',
  title: 'Plan',
  status: 'running',
  progress: 0,
  note: '',
  error: null,
  ...part,
});
beforeEach(() => {
  vi.stubGlobal('EventSource', class {});
});

const follow = (answers: object[], props: { onAgain?: () => Promise<unknown> } = {}) => {
  let at = 0;
  serve({
    'GET /api/jobs/job': () => answers[Math.min(at++, answers.length - 1)],
    'GET /api/events?since=': { events: [], moment: '' },
  });
  draw(<JobProgress jobId="job" doing="Planning" label="Planning the rollout" {...props} />);
};

test('says that it waits, then how far it is, and fetches the page anew at its end', async () => {
  follow([
    job({ status: 'queued' }),
    job({ progress: 0.42, note: 'Ash Glaze at Glaze desk' }),
    job({ status: 'done', progress: 1 }),
  ]);
  expect(await screen.findByText('Waiting for its turn')).toBeTruthy();
  expect(await screen.findByText('Planning, Ash Glaze at Glaze desk', {}, { timeout: 4000 })).toBeTruthy();
  const bar = screen.getByRole('progressbar', { name: 'Planning the rollout' });
  expect(bar.getAttribute('aria-valuenow')).toBe('42');
  expect(router.refresh).not.toHaveBeenCalled();
  await waitFor(() => expect(router.refresh).toHaveBeenCalledOnce(), { timeout: 4000 });
});

test('says why it failed, and what to do', async () => {
  const error = { code: 'not-approved', message: 'It is a draft.', where: 'Ash Glaze', remedy: 'Approve it first.' };
  follow([job({ status: 'failed', error })]);
  const alert = await screen.findByRole('alert');
  expect(alert.textContent).toContain('It is a draft. Approve it first.');
  expect(screen.queryByRole('progressbar')).toBeNull();
});

test('is begun anew where that is offered', async () => {
  const again = vi.fn(() => Promise.resolve());
  const error = { code: 'job-died', message: 'It ended in the middle.', where: 'Plan', remedy: 'Start it again.' };
  follow([job({ status: 'failed', error })], { onAgain: again });
  (await screen.findByRole('button', { name: 'Start it again' })).click();
  await waitFor(() => expect(again).toHaveBeenCalledOnce());
});
