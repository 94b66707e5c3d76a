import { expect, test } from 'vitest';
import { choiceFor, type ChoiceOnBench } from './choice';

const choice = (client: string, camera: string, light: string, kind: string): ChoiceOnBench => ({
  client,
  camera,
  light,
  kind,
  strength: 100,
  profile: `${camera} ${light}`,
  profileVersion: 'v',
  look: null,
  lookVersion: null,
});
const frame = { camera: 'Perrin Alder', light: 'daylight', kind: 'camera data' };
test('the house choice that says most of the frame holds, and one for any client before a client’s own', () => {
  const all = [
    choice('', '', '', ''),
    choice('', 'perrin alder', '', ''),
    choice('', 'Perrin Alder', 'daylight', ''),
    choice('', 'Perrin Alder', 'tungsten', ''),
    choice('Museum', 'Perrin Alder', 'daylight', 'camera data'),
  ];
  expect(choiceFor(all, frame)).toBe(all[2]);
  expect(choiceFor(all, { ...frame, light: 'tungsten' })).toBe(all[3]);
  expect(choiceFor(all, { ...frame, camera: 'Ondine 40' })).toBe(all[0]);
  expect(choiceFor(all.slice(4), frame)).toBe(all[4]);
  expect(choiceFor([choice('', '', '', 'rendered')], frame)).toBeNull();
});
