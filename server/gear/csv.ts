/** Coverage as CSV: a row a camera and a lens. */
import { csvOf } from '@/core/csv';
import type { Person } from '../people/roles';
import { coverage } from './service';

export async function coverageCsv(person: Person): Promise<string> {
  const found = await coverage(person);
  const asked = (id: string): string =>
    found.requests
      .filter((r) => r.camera_id === id || r.lens_id === id)
      .map((r) => `${r.wanted}: ${r.state}`)
      .join('; ');
  return csvOf([
    [
      'kind',
      'maker',
      'model',
      'conversion',
      'serials',
      'mount',
      'coverage',
      'held',
      'missing',
      ...found.editors.map((e) => `read by ${e.title}`),
      'requests',
    ],
    ...found.cameras.map((cameraLine) => [
      'camera',
      cameraLine.camera.maker,
      cameraLine.camera.model,
      cameraLine.camera.conversion,
      cameraLine.camera.serials,
      cameraLine.camera.mount,
      cameraLine.state,
      cameraLine.sources.map((s) => `${s.source}: ${s.held} (${s.approved} approved)`),
      cameraLine.state === 'none' ? 'camera profile' : '',
      ...cameraLine.reads.map((r) => r.answer),
      asked(cameraLine.camera.id),
    ]),
    ...found.lenses.map((lensLine) => [
      'lens',
      lensLine.lens.maker,
      lensLine.lens.model,
      '',
      '',
      lensLine.lens.mount,
      lensLine.state,
      lensLine.found.map((f) => `${f.title} ${f.release}: ${f.quantities.join(', ')}${f.but ? ` (${f.but})` : ''}`),
      lensLine.missing,
      ...found.editors.map(() => ''),
      asked(lensLine.lens.id),
    ]),
  ]);
}
