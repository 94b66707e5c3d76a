import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { ExportedAnswer, ExportedRequest } from '@/browser-workers/exported.worker';
import { must } from '@/core/must';
import { draw } from '../testing/render';
import { Exported } from './Exported';

const asked: ExportedRequest[] = [];
let answer: (answer: ExportedAnswer) => void = () => {};
let breakDown: () => void = () => {};
class FakeWorker {
  onmessage: ((event: { data: ExportedAnswer }) => void) | null = null;
  onerror: (() => void) | null = null;
  constructor() {
    breakDown = () => act(() => this.onerror?.());
    answer = (data) => act(() => this.onmessage?.({ data }));
  }
  postMessage(request: ExportedRequest) {
    asked.push(request);
  }
  terminate() {
    this.onmessage = null;
  }
}
beforeEach(() => {
  asked.length = 0;
  vi.stubGlobal('Worker', FakeWorker);
});
afterEach(() => vi.unstubAllGlobals());

const file = (name: string) => new File(['x'], name, { type: 'image/png' });
const near = { mean: 0.42, p95: 1.1, max: 3 };
const pixels = () => new ArrayBuffer(4);
const done = (id: number, without: typeof near | null): ExportedAnswer => ({
  id,
  width: 1,
  height: 1,
  pictures: {
    editorWithout: pixels(),
    editorWith: pixels(),
    hereWithout: pixels(),
    hereWith: pixels(),
    difference: pixels(),
  },
  figures: { with: near, without, effect: { mean: 9, p95: 12, max: 20 } },
});
const show = () =>
  draw(
    <Exported
      version="v"
      title="Velour"
      editor="Oxbow 2"
      frames={[{ id: 'f', name: 'Vessels' }]}
      notShown={['Grain']}
    />,
  );

test('both exports are compared once they are given, and anew from a frame; an answer that is late is passed over', async () => {
  const user = userEvent.setup();
  show();
  await user.upload(screen.getByLabelText('The export without it'), file('a.png'));
  expect(asked).toEqual([]);
  await user.upload(screen.getByLabelText('The export with it'), file('b.png'));
  expect(asked).toHaveLength(1);
  expect(must(asked[0])).toMatchObject({ version: 'v', frame: null });
  expect(screen.getByText('Comparing')).toBeTruthy();
  answer(done(must(asked[0]).id, null));
  expect(screen.getByText('ΔE00 mean 0.42, 95 % 1.10, largest 3.0')).toBeTruthy();
  expect(screen.getByText('Not rendered here, and so part of the difference: Grain.')).toBeTruthy();
  expect(screen.getAllByRole('img')).toHaveLength(5);
  await user.selectOptions(screen.getByLabelText('Here it begins from'), 'f');
  answer(done(must(asked[0]).id, null));
  expect(screen.getByText('Comparing')).toBeTruthy();
  answer(done(must(asked[1]).id, near));
  expect(screen.getByText('Without it, here against there')).toBeTruthy();
});

test('a worker that does not start is said, too', async () => {
  const user = userEvent.setup();
  show();
  await user.upload(screen.getByLabelText('The export without it'), file('a.png'));
  await user.upload(screen.getByLabelText('The export with it'), file('b.png'));
  breakDown();
  expect(screen.getByRole('alert').textContent).toBe('The comparison could not be started. Reload the page.');
});

test('what cannot be compared is said, with what to do', async () => {
  const user = userEvent.setup();
  show();
  await user.upload(screen.getByLabelText('The export without it'), file('a.png'));
  await user.upload(screen.getByLabelText('The export with it'), file('b.png'));
  answer({ id: must(asked[0]).id, error: 'The two exports are of different sizes.', remedy: 'Export them alike.' });
  expect(screen.getByRole('alert').textContent).toBe('The two exports are of different sizes. Export them alike.');
});
