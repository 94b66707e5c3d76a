import { act, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { drawHook } from '../../testing/render';
import { refusal, serve } from '../../testing/server';
import { router } from '../../testing/setup';
import { useUploads, type Waiting } from './uploads';

const MEGABYTE = 1 << 20;
const PART = 4 * MEGABYTE;
const file = new File([new Uint8Array(5 * MEGABYTE)], 'kiln.zip');
const dropped = { name: 'Kiln', files: [{ path: 'kiln.zip', file }] };
const upload = { id: 'u', path: 'kiln.zip', size: file.size, received: 0 };
const begun = { 'POST /api/uploads': { arrival: 'a', files: [upload] } };
const broken = () => {
  throw new TypeError('Failed to fetch');
};

function uploads(answers: Record<string, unknown>, waiting: Waiting[] = []) {
  const asked = serve({ ...begun, ...answers });
  const hook = drawHook(() => useUploads(waiting), undefined);
  const parts = () => asked.filter(({ method }) => method === 'PUT').map(({ path }) => path);
  return { hook, parts, asked, take: () => act(() => hook.result.current.take([dropped])) };
}

describe('files on their way', () => {
  beforeEach(() => {
    vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 500 });
  });
  afterEach(() => {
    vi.useRealTimers();
  });

  test('go in parts, each behind what the server has, and then the arrival opens', async () => {
    const { parts, take, hook } = uploads({
      'PUT /api/uploads/u?offset=0': { received: PART },
      [`PUT /api/uploads/u?offset=${PART}`]: { received: file.size },
      'POST /api/uploads/u': { arrival: 'a', waiting: 0 },
    });
    await take();
    await waitFor(() => expect(router.push).toHaveBeenCalledWith('/intake/a'));
    expect(parts()).toEqual(['/api/uploads/u?offset=0', `/api/uploads/u?offset=${PART}`]);
    expect(hook.result.current.arriving).toEqual([]);
  });

  test('are tried again where the connection breaks, from where they stood', async () => {
    let tries = 0;
    const { parts, take } = uploads({
      'PUT /api/uploads/u?offset=0': { received: PART },
      [`PUT /api/uploads/u?offset=${PART}`]: () => (tries++ < 2 ? broken() : { received: file.size }),
      'POST /api/uploads/u': { arrival: 'a', waiting: 0 },
    });
    await take();
    await waitFor(() => expect(router.push).toHaveBeenCalledOnce(), { timeout: 10_000 });
    expect(parts().filter((path) => path.endsWith(`=${PART}`))).toHaveLength(3);
    expect(parts().filter((path) => path.endsWith('=0'))).toHaveLength(1);
  });

  test('that are refused are not sent again, and it is said why', async () => {
    const problem = { code: 'upload-part', message: 'It has no place.', where: 'offset', remedy: 'Drop it again.' };
    const { parts, take, hook } = uploads({ 'PUT /api/uploads/u?offset=0': () => refusal(problem) });
    await take();
    await waitFor(() => expect(hook.result.current.arriving[0]?.problem).toEqual(problem));
    expect(parts()).toHaveLength(1);
  });

  test('go on after a reload when the same files are dropped again, and are no second arrival', async () => {
    const waiting = [{ ...upload, received: PART, arrival: 'a', name: 'Kiln' }];
    const { asked, parts, take } = uploads(
      {
        [`PUT /api/uploads/u?offset=${PART}`]: { received: file.size },
        'POST /api/uploads/u': { arrival: 'a', waiting: 0 },
      },
      waiting,
    );
    await take();
    await waitFor(() => expect(router.push).toHaveBeenCalledWith('/intake/a'));
    expect(parts()).toEqual([`/api/uploads/u?offset=${PART}`]);
    expect(asked.map(({ path }) => path)).not.toContain('/api/uploads');
  });
});
