import { describe, expect, test } from 'vitest';
import { calibrations } from './calibrated';
import { cameraOf, matches, toldMatch } from './match';

const lens = (maker: string, model: string, mount: string, focals: number[], alias = '') =>
  `<lens maker="${maker}" model="${model}" mount="${mount}" crop="1">${alias && `<alias>${alias}</alias>`}<series quantity="distortion" model="odd3" unit="half-diagonal" direction="ideal-to-distorted">${focals.map((f) => `<sample focal="${f}" k1="0.01"/>`).join('')}</series></lens>`;
const database = calibrations(
  new TextEncoder().encode(
    `<lens-database xmlns="https://etagere.example/ns/lens-database/1" release="1">
       <camera maker="Perrin" model="Perrin Alder" mount="Alder" width="36" height="24"/>
       ${lens('Perrin', 'Perrin 50 mm f/2', 'Alder', [50], 'PX 50/2')}
       ${lens('Perrin', 'Perrin 50 mm f/2 Quiet', 'Alder', [50])}
       ${lens('Perrin', 'Perrin 24-70 mm f/4', 'Alder', [24, 70])}
       ${lens('Corvane', 'Corvane 50 mm f/2', 'Ley', [50])}
     </lens-database>`,
  ),
);
const found = (wanted: string, focal: number | null = null, camera = 'PERRIN ALDER') =>
  matches(database, { camera, lens: wanted, focal }).map((match) => {
    const { lens: name, confidence, reason } = toldMatch(match);
    return [name, Number(confidence.toFixed(3)), reason];
  });

describe('the lens of a photo', () => {
  test('is found by its name however it is written, then by its other names, and each with the reason', () => {
    expect(found('50mm F2.0')[0]).toEqual(['Perrin 50 mm f/2', 1, 'the same name']);
    expect(found('PX 50/2')[0]).toEqual(['Perrin 50 mm f/2', 0.95, 'its other name “PX 50/2”']);
  });
  test('that is only like one is told as likely, with how much of the names is the same', () => {
    expect(found('Perrin 50 mm f/2 Quiet II')).toEqual([
      ['Perrin 50 mm f/2 Quiet', 0.729, '86 % of the words of both names are the same'],
      ['Perrin 50 mm f/2', 0.567, '67 % of the words of both names are the same'],
    ]);
  });
  test('is none whose numbers say otherwise, and nothing is found for nothing', () => {
    expect([found('Perrin 55 mm f/2'), found('Perrin 24-105 mm f/4'), found(''), found('pancake')]).toEqual([
      [],
      [],
      [],
      [],
    ]);
  });
  test('becomes doubtful by mount and by focal length, each of them said; what is only like it is dropped', () => {
    expect(found('Perrin 24-70 mm f/4', 85)).toEqual([
      [
        'Perrin 24-70 mm f/4',
        0.5,
        'the same name; but it was measured from 24 to 70 mm, and the photo was taken at 85 mm',
      ],
    ]);
    expect(found('Corvane 50 mm f/2')).toContainEqual([
      'Corvane 50 mm f/2',
      0.5,
      'the same name; but it is of the mount Ley, and the camera has Alder',
    ]);
    expect(found('Perrin 50 mm f/2 Quiet II', 35)).toEqual([]);
  });
  test('does not hang on a camera that the database does not know', () => {
    expect(cameraOf(database, 'Somebody’s')).toBeNull();
    expect(found('Corvane 50 mm f/2', null, 'Somebody’s')[0]).toEqual(['Corvane 50 mm f/2', 1, 'the same name']);
  });
});
