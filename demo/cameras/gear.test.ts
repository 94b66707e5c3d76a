import { expect, test } from 'vitest';
import { calibrations } from '@/core/lens/calibrated';
import { lensFacts } from '@/core/lens/facts';
import { cropOf } from '@/core/lens/sensor';
import { lensCoverage } from '@/core/records/coverage';
import { lensDatabase, studioCameras, studioLenses } from './gear';

const bytes = new TextEncoder().encode(lensDatabase());
test('the bureau’s release is a lens database with samples at every focal length and aperture', () => {
  const facts = lensFacts(bytes);
  const known = calibrations(bytes);
  expect(facts).toMatchObject({ release: '2026-10', mounts: ['Alder', 'Ondine', 'Ley'], bodies: 3 });
  expect(facts.samples).toBe(
    studioLenses
      .filter((l) => !l.model.includes('Macro'))
      .reduce((n, l) => n + l.focal.length * (3 + l.apertures.length), 0),
  );
  expect(known.lenses.find((l) => l.model === 'Perrin 24-70 mm f/4')!.focal).toEqual([24, 70]);
});
test('it covers the studio’s lenses on the studio’s sensors, but for the macro', () => {
  const lenses = studioLenses.map((l) => ({ id: l.model, maker: l.maker, model: l.model, names: [], mount: l.mount }));
  const bodies = studioCameras.map((camera) => ({
    id: camera.serials[0]!,
    maker: camera.maker,
    model: camera.model,
    names: [],
    conversion: camera.conversion,
    serials: camera.serials,
    mount: camera.mount,
    crop: cropOf(camera.sensor_width, camera.sensor_height),
  }));
  expect(
    Object.fromEntries(
      lensCoverage(lenses, bodies, [{ item: 'i', title: 'Bureau', ...calibrations(bytes) }]).map((lensLine) => [
        lensLine.lens.model,
        lensLine.state,
      ]),
    ),
  ).toEqual({
    'Perrin 50 mm f/2': 'covered',
    'Ondine 80 mm f/2.8': 'covered',
    'Corvane 35 mm f/1.8': 'covered',
    'Perrin 24-70 mm f/4': 'covered',
    'Perrin Macro 90 mm f/2.8': 'none',
  });
});
test('the widest aperture loses the most light, and the corner of a barrel is nearer to the center', () => {
  const at = (a: string) => Number(new RegExp(`aperture="${a}" k1="(-[\\d.]+)"`).exec(lensDatabase())![1]);
  expect(at('2')).toBeLessThan(at('8'));
  expect(lensDatabase()).toContain('<sample focal="24" k1="-0.031"/>');
});
