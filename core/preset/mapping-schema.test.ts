/** A mapping's fields have their types, or the descriptor is refused with the place: nothing of it is guessed. */
import { ValidationError } from 'yup';
import { describe, expect, test } from 'vitest';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { mappingSchema } from './mapping-schema';

const refusalOf = (mapping: unknown): string => {
  try {
    mappingSchema.validateSync(mapping, { strict: true });
  } catch (error) {
    if (error instanceof ValidationError) return error.errors.join(' ');
    throw error;
  }
  return '';
};
const withEntry = (part: object) => ({ entries: [{ step: 'tone', attribute: 'lift', to: 'exposure', ...part }] });

describe('the form of a mapping', () => {
  test.each([
    ['Marlstone 3', marlstone3],
    ['Marlstone 4', marlstone4],
    ['Oxbow 2', oxbow2],
  ])('the one of %s is of it', (_, { presets }) => expect(refusalOf(presets.mapping)).toBe(''));

  test.each([
    ['a table that is no list', withEntry({ table: 7 }), 'entries[0].table must be a list of pairs of numbers'],
    ['a table of single numbers', withEntry({ table: [1, 2] }), 'entries[0].table must be a list of pairs'],
    ['a table of texts', withEntry({ table: [['a', 'b']] }), 'entries[0].table must be a list of pairs'],
    ['a table that ends nowhere', withEntry({ table: [[0, Infinity]] }), 'entries[0].table must be a list of pairs'],
    ['a scale in words', withEntry({ scale: 'x' }), 'entries[0].scale'],
    ['a range of three', withEntry({ range: [0, 1, 2] }), 'entries[0].range must be two numbers'],
    [
      'a name with markup in it',
      { title: { step: '<a>', attribute: 'b' }, entries: [] },
      'title.step must be a plain name',
    ],
    ['a class that is none', withEntry({ class: 'elsewhere' }), 'entries[0].class must be one of'],
    ['a word that nobody knows', withEntry({ invert: true }), 'invert'],
    ['a sum of nothing', withEntry({ sum: [] }), 'entries[0].sum'],
    ['a constant that is a list', withEntry({ constants: { side: [] } }), 'must be a number or a text'],
    ['no entries', {}, 'entries is a required field'],
  ])('%s is refused with its place', (_, mapping, message) => expect(refusalOf(mapping)).toContain(message));
});
