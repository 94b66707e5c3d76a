import { act } from '@testing-library/react';
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { drawHook } from '../testing/render';
import { serve } from '../testing/server';

/** The server's stream, as a test speaks on it. */
class Stream {
  static last: Stream | null = null;
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  constructor(readonly path: string) {
    Stream.last = this;
  }
}

const event = (id: number, subject: string) => ({
  type: 'event',
  event: { id, subject, subject_id: 'x', action: 'changed', actor: 'Piet' },
  moment: `${id}:${id}:`,
});
const say = (message: object) => Stream.last?.onmessage?.({ data: JSON.stringify(message) });
const wait = (ms: number) => act(() => new Promise<void>((done) => setTimeout(done, ms)));

async function follow(subject: string) {
  const then = vi.fn();
  const { useLive } = await import('./live');
  const hook = drawHook(
    ({ of }: { of: string }) => useLive((message) => message.type === 'event' && message.event.subject === of, then),
    { of: subject },
  );
  await wait(10);
  return { told: then, hook };
}

describe('what happens at the server', () => {
  beforeEach(() => {
    vi.resetModules();
    Stream.last = null;
    vi.stubGlobal('EventSource', Stream);
    vi.stubGlobal(
      'BroadcastChannel',
      class {
        postMessage() {}
      },
    );
    document.body.innerHTML = '<main data-moment="40:40:"></main>';
  });

  test('reaches whom it concerns, several at once as one', async () => {
    serve({ 'GET /api/events?since=40%3A40%3A': { events: [], moment: '40:40:' } });
    const { told } = await follow('item');
    expect(Stream.last?.path).toBe('/api/live');
    say(event(41, 'station'));
    say(event(42, 'item'));
    say(event(43, 'item'));
    await wait(300);
    expect(told).toHaveBeenCalledOnce();
  });

  test('is caught up with: what came between the making of the page and now', async () => {
    const asked = serve({
      'GET /api/events?since=40%3A40%3A': { events: [event(41, 'item').event], moment: '41:41:' },
    });
    const { told } = await follow('item');
    await wait(300);
    expect(asked.map(({ path }) => path)).toContain('/api/events?since=40%3A40%3A');
    expect(told).toHaveBeenCalledOnce();
  });

  test('after the stream broke, only what was missed is asked for', async () => {
    const asked = serve({
      'GET /api/events?since=40%3A40%3A': { events: [], moment: '40:40:' },
      'GET /api/events?since=44%3A44%3A': { events: [event(45, 'item').event], moment: '45:45:' },
    });
    const { told } = await follow('item');
    say(event(44, 'item'));
    await wait(300);
    Stream.last?.onopen?.();
    await wait(300);
    expect(asked.at(-1)?.path).toBe('/api/events?since=44%3A44%3A');
    expect(told).toHaveBeenCalledTimes(2);
  });

  test('of the last seconds is told to a screen that comes while it happens, once', async () => {
    serve({ 'GET /api/events?since=40%3A40%3A': { events: [], moment: '40:40:' } });
    await follow('item');
    say(event(41, 'station'));
    say(event(42, 'station'));
    const { told } = await follow('station');
    await wait(600);
    expect(told).toHaveBeenCalledOnce();
    vi.spyOn(performance, 'now').mockReturnValue(performance.now() + 60_000);
    const later = await follow('station');
    await wait(300);
    expect(later.told).not.toHaveBeenCalled();
  });

  test('is told to what is looked at now, and to nobody who has left', async () => {
    serve({ 'GET /api/events?since=40%3A40%3A': { events: [], moment: '40:40:' } });
    const { told, hook } = await follow('item');
    hook.rerender({ of: 'station' });
    say(event(41, 'item'));
    await wait(300);
    expect(told).not.toHaveBeenCalled();
    hook.unmount();
    say(event(42, 'station'));
    await wait(300);
    expect(told).not.toHaveBeenCalled();
  });
});
