import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bearer, bears, cameraForm, lensForm } from './names';

describe('names of cameras', () => {
  test.each([
    ['PERRIN ALDER', 'Perrin'],
    ['Perrin  Alder', 'Perrin'],
    ['Alder', 'Perrin Optical'],
    ['Perrin-Alder', 'PERRIN'],
    ['Pérrin Alder', 'Perrin'],
  ])('%s of %s is the alder', (model, maker) => {
    expect(cameraForm(model, maker)).toBe('alder');
  });
  test.each(['Ley II', 'LEY Mark II', 'Ley Mk. 2', 'Ley mk2', 'Corvane Ley mark 2'])(
    'a mark is written in many ways: %s',
    (name) => {
      expect(cameraForm(name, 'Corvane')).toBe('ley mk2');
    },
  );
  test('a mark, a suffix and a number tell models apart', () => {
    expect(new Set(['Ley', 'Ley II', 'Ley S', 'Ley 2', 'Ley IV', 'Ley V'].map((n) => cameraForm(n))).size).toBe(6);
  });
  test('the maker is dropped at the beginning only, and never the whole name', () => {
    expect(cameraForm('Ondine', 'Ondine')).toBe('ondine');
    expect(cameraForm('Alder Perrin', 'Perrin')).toBe('alder perrin');
  });
});

describe('names of lenses', () => {
  test.each(['Perrin 50 mm f/2', 'PERRIN 50mm F2.0', 'f/2 50 mm', 'Perrin 50mm 1:2', '50 mm F:2'])(
    '%s is one lens',
    (name) => {
      expect(lensForm(name, 'Perrin')).toBe('50mm f2');
    },
  );
  test.each(['Perrin Macro 24–70 mm f/2,8-4', 'perrin macro 24 - 70mm F2.8 - 4.0'])(
    'a zoom with a range of apertures: %s',
    (name) => {
      expect(lensForm(name, 'Perrin')).toBe('24-70mm f2.8-4 macro');
    },
  );
  test('focal length, aperture, suffix and mark tell lenses apart', () => {
    expect(
      new Set(
        ['50 mm f/2', '50 mm f/1.8', '55 mm f/2', '50 mm f/2 macro', '50 mm f/2 II', '50 mm f/2.2'].map((name) =>
          lensForm(name),
        ),
      ).size,
    ).toBe(6);
  });
});

test('a thing bears its model and its other names, and nothing else', () => {
  const alder = { maker: 'Perrin', model: 'Alder', names: ['PA-1 Kaede'] };
  expect([
    bears(alder, cameraForm, 'PERRIN ALDER'),
    bears(alder, cameraForm, 'Perrin PA 1 Kaede'),
    bears(alder, cameraForm, 'Alder S'),
    bears(alder, cameraForm, ''),
  ]).toEqual([true, true, false, false]);
});

const name = fc
  .array(fc.constantFrom('Perrin', 'PERRIN', 'Alder', 'Mk', 'II', '2', '50', 'mm', 'f/2', '-', 'S', 'é', '·'), {
    maxLength: 6,
  })
  .map((w) => w.join(' '));
test('a name is the same to itself in any case, with any maker before it, and is comparable once made so', () =>
  fc.assert(
    fc.property(name, fc.constantFrom(cameraForm, lensForm), (name, form) => {
      const file = form(name, 'Perrin');
      expect(form(name.toUpperCase(), 'perrin')).toBe(file);
      // a maker before it says nothing, but where no more than the maker is left
      if (file && file !== 'perrin') expect(form(`Perrin ${name}`, 'Perrin')).toBe(file);
    }),
  ));
test('many at once are found as one by one', () =>
  fc.assert(
    fc.property(
      fc.array(name, { maxLength: 5 }),
      fc.array(name, { maxLength: 4 }),
      fc.constantFrom('Perrin', ''),
      (names, own, maker) => {
        const named = bearer(cameraForm);
        const thing = { maker, model: own[0] ?? 'Alder', names: own.slice(1) };
        for (let round = 0; round < 2; round++)
          expect(named(thing, names)).toBe(names.some((n) => bears(thing, cameraForm, n)));
      },
    ),
  ));
