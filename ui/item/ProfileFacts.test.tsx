import { screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { CameraProfileFacts } from '@/core/camera/facts';
import { draw } from '../testing/render';
import { ProfileFacts } from './ProfileFacts';

const kiln: CameraProfileFacts = {
  camera: 'Perrin Alder',
  name: 'Kiln',
  copyright: '',
  embed: 2,
  illuminants: [17, 21],
  stages: ['tone curve'],
  forward: false,
};

const told = (name: string) => screen.getByText(name).nextElementSibling?.textContent;

test('codes of a profile are told in words', () => {
  draw(<ProfileFacts facts={kiln} />);
  expect(told('Measured under')).toBe('standard light A and D65');
  expect(told('May be embedded')).toBe('no');
  expect(told('Stages')).toBe('tone curve');
  expect(screen.queryByText('Copyright')).toBeNull();
});

test('what a file leaves out, or says in a code of no meaning, is told as such', () => {
  draw(<ProfileFacts facts={{ ...kiln, embed: null, illuminants: [255], stages: [], forward: true }} />);
  expect(told('Measured under')).toBe('another light (code 255)');
  expect(told('May be embedded')).toBe('the file does not say');
  expect(told('Stages')).toBe('matrices only');
});
