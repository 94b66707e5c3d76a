import { describe, expect, test } from 'vitest';
import { actorWords, sentences, tell, type Said } from './sentences';

const told = (subject: string, action: string, after: Said | null = null, before: Said | null = null): string => {
  const { start, end, named } = tell({ subject, action, before, after });
  return `${start}${named ? 'Ash' : ''}${end}`;
};

describe('what happened is told as a sentence', () => {
  test.each([
    ['item', 'approved', { status: 'approved', version: 2 }, null, 'approved Ash, version 2'],
    ['item', 'moved', { shelf: 'House looks' }, { shelf: 'Ceramics' }, 'moved Ash from Ceramics to House looks'],
    ['item', 'ribbon set', { whose: 'house' }, null, 'set the house ribbon on Ash'],
    ['item', 'merged', { from: ['Bone', 'Clay'] }, null, 'merged Bone, Clay into Ash'],
    [
      'item',
      'chosen on the bench',
      { frames: 1, strength: 80, words: 'Holds.' },
      null,
      'chose Ash on 1 frame at 80 %: “Holds.”',
    ],
    ['arrival', 'accepted', { items: 12 }, null, 'took 12 items in from Ash'],
    ['arrival', 'corrected', { title: 'Bone' }, { title: 'Bon' }, 'changed the title “Bon” in Ash to “Bone”'],
    [
      'rollout',
      'reported',
      { operations: 6, bad: 1 },
      null,
      'carried out 6 files of Ash, of which 1 could not be done',
    ],
    ['request', 'asked for', { wanted: 'camera profile', 'asked of': '' }, null, 'asked for a camera profile for Ash'],
    ['house-choice', 'made', { camera: '', light: 'daylight' }, null, 'made a house choice: any camera, daylight'],
    ['studio', 'backup taken', null, null, 'took a backup'],
  ])('%s, %s', (subject, action, after, before, words) => {
    expect(told(subject, action, after, before)).toBe(words);
  });

  test('every one of them holds with nothing said, and without a word of code', () => {
    for (const [subject, actions] of Object.entries(sentences))
      for (const action of Object.keys(actions)) {
        const words = told(subject, action);
        expect(words).not.toMatch(/undefined|null|\{|\}|[a-z]_[a-z]|object/);
        expect(words).toMatch(/^[a-z]/);
      }
  });

  test('one of an older release is told as it was recorded', () => {
    expect(told('item', 'toString')).toBe('toString: Ash');
    expect(told('constructor', 'gone')).toBe('gone: Ash');
  });
});

test('who did it is named as sentences begin', () => {
  expect(actorWords('Odile Wren')).toBe('Odile Wren');
  expect(actorWords('agent of Glaze desk')).toBe('The agent of Glaze desk');
  expect(actorWords('worker')).toBe('Etagere');
});
