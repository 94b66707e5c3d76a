import { describe, expect, it } from 'vitest';
import { whyNot, type Asked } from './askable';

const renders = {
  folder: {},
  kinds: ['look' as const],
  ask: { extension: '.ask', form: 'lines' as const, text: '{path}' },
  result: '.done.png',
  fault: '.txt',
};
const asked: Asked = {
  by: 'editor',
  kind: 'look',
  input: undefined,
  state: 'listed',
  descriptor: { title: 'Oxbow 2', renders },
  agent: '0.4.0',
};

describe('whether an editor can be asked for a picture', () => {
  it('can, of a look that it lists', () => expect(whyNot(asked)).toBeNull());

  it.each([
    [{ kind: 'camera-profile' }, /only looks and presets/],
    [{ input: 'camera data' }, /for camera data alone/],
    [{ state: 'restart-due' }, /does not list it yet/],
    [{ kind: 'preset' }, /makes no picture of a preset/],
    [{ descriptor: { title: 'Marlstone 3' } }, /makes no picture/],
    [{ agent: '0.3.0' }, /older than 0\.4/],
    [{ agent: null }, /older than 0\.4/],
  ])('says why not: %o', (other, words) => expect(whyNot({ ...asked, ...other })).toMatch(words));

  it('leaves it to a person where no agent is, and where the editor cannot be asked', () => {
    const byHand = { ...asked, by: 'person' as const, state: 'by-hand', agent: null, descriptor: { title: 'Any' } };
    expect(whyNot(byHand)).toBeNull();
    expect(whyNot({ ...byHand, state: 'launch-due' })).toMatch(/does not list it yet/);
  });
});
