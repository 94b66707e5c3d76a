import { describe, expect, test } from 'vitest';
import { bodyOf, fieldsOf } from './gear-fields';

const perrin = {
  maker: 'Perrin',
  model: 'Alder',
  names: ['PRN-AL1', 'Alder I'],
  mount: 'P',
  conversion: 'infrared',
  serials: ['0017'],
  sensor_width: 35.9,
  sensor_height: null,
};

describe('the form of a camera or a lens', () => {
  test('gives back what it was opened with', () => {
    expect(bodyOf('camera', fieldsOf(perrin))).toEqual(perrin);
  });
  test('a lens is sent without what only a camera has', () => {
    expect(bodyOf('lens', fieldsOf(perrin))).toEqual({
      maker: 'Perrin',
      model: 'Alder',
      names: perrin.names,
      mount: 'P',
    });
  });
  test('spaces and empty words between commas are no names', () => {
    const fields = { ...fieldsOf(null), names: ' one ,, two,' };
    expect(bodyOf('lens', fields).names).toEqual(['one', 'two']);
  });
  test('a size that is not filled in is not known, which is not nought', () => {
    expect(bodyOf('camera', { ...fieldsOf(null), sensor_width: ' ', sensor_height: '0' })).toMatchObject({
      sensor_width: null,
      sensor_height: 0,
    });
  });
});
