import { expect, test } from 'vitest';
import { benchAddress } from './laid';

const frames = [{ id: 'f1' }, { id: 'f2' }, { id: 'f3' }];
const look = (versionId: string) => ({ kind: 'look', versionId });

test('looks and presets are laid as layers, camera profiles as what develops, the rest not', () => {
  const mixed = [look('va'), { kind: 'camera-profile', versionId: 'vp' }, { kind: 'lens-database', versionId: 'vl' }];
  expect(benchAddress(mixed, frames)).toBe('/bench?rows=f1~f2&cols=none~l:va:100~p:vp');
  expect(benchAddress([{ ...look('va'), strength: 60 }], frames, 3)).toBe('/bench?rows=f1~f2~f3&cols=none~l:va:60');
});

test('there is no bench without a frame, or with nothing to lay; and no more than it takes', () => {
  expect(benchAddress([look('va')], [])).toBeNull();
  expect(benchAddress([{ kind: 'lens-database', versionId: 'vl' }], frames)).toBeNull();
  const many = Array.from({ length: 30 }, (_, n) => look(`v${n}`));
  expect(benchAddress(many, frames)?.split('~l:')).toHaveLength(16);
});
