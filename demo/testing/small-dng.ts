/** A camera file for tests: small, with all that a reader asks it. */
import { must } from '@/core/must';
import { writeDng, type DngPlan } from '@/core/frame/dng';
import { cameras, neutralUnder } from '../cameras/cameras';
import { profileFor } from '../cameras/profiles';
import { daylight } from '../cameras/spectra';

/** @param more what differs from a plain photo in daylight */
export function smallDng(
  maker: string,
  model: string,
  {
    iso = 100,
    lens = '',
    serial = '1',
    baseline = 0,
    mosaic = new Uint16Array(64).fill(4000),
  }: Partial<Pick<DngPlan, 'iso' | 'lens' | 'serial' | 'baseline' | 'mosaic'>> = {},
): Uint8Array {
  const camera = must(cameras[0]);
  return writeDng({
    width: 8,
    height: 8,
    cfa: [0, 1, 1, 2],
    mosaic,
    black: 512,
    white: 16383,
    neutral: neutralUnder(camera, daylight(5600)),
    maker,
    model,
    unique: model,
    serial,
    lens,
    focal: 50,
    aperture: 8,
    iso,
    date: '2026:11:20 10:00:00',
    profile: profileFor(camera, null, 'x'),
    baseline,
    jpeg: null,
  });
}
