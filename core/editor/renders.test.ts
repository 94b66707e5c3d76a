import { describe, expect, it } from 'vitest';
import { askNames, askText, faultOfRenders, type Renders } from './renders';

const renders: Renders = {
  folder: { linux: '{home}/Oxbow/Proofs' },
  kinds: ['look'],
  ask: { extension: '.ask.json', form: 'json', text: '{"open": "{picture}", "put": "{path}", "as": "{title}"}' },
  result: '.done.png',
  fault: '.fault.txt',
};
const places = { looks: { linux: '{home}/Oxbow/Looks' } };
const id = '01900000-0000-7000-8000-000000000000';
const putOn = { path: 'Oxbow/Looks/A "b".cube', title: 'A\n"b"' };

describe('asking an editor for a picture', () => {
  it('names what is put on within the quotes of JSON, whatever it is called', () => {
    const text = askText(renders, askNames(renders, id), putOn);
    expect(JSON.parse(text)).toEqual({ open: `${id}.png`, put: 'Oxbow/Looks/A "b".cube', as: 'A\n"b"' });
  });

  it('keeps a value on its line, and names an entry of a bundle by its key', () => {
    const lines: Renders = {
      ...renders,
      ask: { extension: '.order', form: 'lines', text: 'put={name}\nas={title}\n' },
    };
    const asked = { ...putOn, path: 'T/t.json#panes/k-1' };
    expect(askText(lines, askNames(lines, id), asked)).toBe('put=k-1\nas=A "b"\n');
  });

  it('is refused where pictures would lie among the things that the editor reads', () => {
    for (const linux of ['{home}/Oxbow/Looks', '{home}/Oxbow/Looks/Proofs'])
      expect(faultOfRenders(places, { ...renders, folder: { linux } })?.remedy).toMatch(/a folder of their own/);
    expect(faultOfRenders(places, { ...renders, folder: { linux: '{home}/Oxbow/Looks and proofs' } })).toBeNull();
  });

  it('is refused where two files would have one name, or nothing says what to put on', () => {
    expect(faultOfRenders(places, renders)).toBeNull();
    expect(faultOfRenders(places, { ...renders, fault: '.done.png' })?.message).toMatch(/both end in \.done\.png/);
    expect(faultOfRenders(places, { ...renders, result: '.png' })?.message).toMatch(/both end in \.png/);
    expect(faultOfRenders(places, { ...renders, result: '.done.tif' })?.remedy).toMatch(/PNG/);
    expect(
      faultOfRenders(places, { ...renders, ask: { ...renders.ask, text: '{"open": "{picture}"}' } })?.message,
    ).toMatch(/does not say what to put on/);
    expect(faultOfRenders(places, { ...renders, ask: { ...renders.ask, text: '{path} {size}' } })?.message).toMatch(
      /\{size\}/,
    );
  });
});
