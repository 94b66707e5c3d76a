import { describe, expect, test } from 'vitest';
import { changeOf, changesSomething, emptyForm } from './bulk';

const asked = (form: Partial<typeof emptyForm>) => changeOf(['a', 'b'], { ...emptyForm, ...form });

describe('many items changed at once', () => {
  test('an empty form asks for nothing', () => {
    expect(asked({})).toEqual({ items: ['a', 'b'], addTags: [], removeTags: [] });
    expect(changesSomething(asked({ headings: '  ' }))).toBe(false);
  });

  test('lists are read with their blanks taken off', () =>
    expect(asked({ addTags: ' costume, tungsten ,', headings: 'Kiln / Blue' })).toMatchObject({
      addTags: ['costume', 'tungsten'],
      set: { headings: ['Kiln', 'Blue'] },
    }));

  test('“any” leaves cameras and scope open, “none” takes the licence off', () =>
    expect(asked({ cameras: 'any', input: 'any', licence: 'none' }).set).toEqual({
      cameras: [],
      scope: { input: null },
      licence_id: null,
    }));

  test('what a look gives stays as it is where only what it works on is said', () =>
    expect(asked({ input: 'camera data' }).set).toEqual({ scope: { input: 'camera data' } }));

  test('a title is changed by words or by a pattern', () => {
    expect(asked({ find: 'Old', replace: 'New' }).title).toEqual({ find: 'Old', replace: 'New', pattern: '' });
    expect(changesSomething(asked({ pattern: '{title} {n}' }))).toBe(true);
  });
});
