import { describe, expect, test } from 'vitest';
import { identity } from '@/core/look/look';
import { entryOf } from './arrival-entry';

const look = (fileScope: unknown) =>
  entryOf({
    type: 'entry',
    path: 'Ash.look',
    bytes: Buffer.from('x'),
    kind: 'look',
    format: 'oxbow@2',
    title: 'Ash',
    headings: [],
    needs: [],
    note: 'look of Oxbow 2, 2 points',
    confidence: 1,
    evidence: [],
    facts: { fileScope },
    look: identity(2),
  });
const note = async (fileScope: unknown) => (await look(fileScope)).row.note;

describe('a look that limits itself', () => {
  test('says so when it comes in', async () => {
    expect(await note({ input: 'camera data', result: 'monochrome' })).toBe(
      'look of Oxbow 2, 2 points; it limits itself to camera data, monochrome',
    );
    expect(await note({ cameras: ['Perrin Alder'] })).toMatch(/limits itself to Perrin Alder$/);
  });

  test.each([null, 'camera data', {}, { input: '' }, { input: 7, cameras: 'all' }])(
    'and one that does not, or says nonsense, does not: %j',
    async (scope) => expect(await note(scope)).toBe('look of Oxbow 2, 2 points'),
  );
});
