/** Coverage as CSV: a row a camera and a lens. */
import { csvOf } from '../csv';
import type { Person } from '../people/roles';
import { coverage } from './service';

export async function coverageCsv(person: Person): Promise<string> {
  const c = await coverage(person);
  const asked = (id: string): string =>
    c.requests
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
      ...c.editors.map((e) => `read by ${e.title}`),
      'requests',
    ],
    ...c.cameras.map((l) => [
      'camera',
      l.camera.maker,
      l.camera.model,
      l.camera.conversion,
      l.camera.serials,
      l.camera.mount,
      l.state,
      l.sources.map((s) => `${s.source}: ${s.held} (${s.approved} approved)`),
      l.state === 'none' ? 'camera profile' : '',
      ...l.reads.map((r) => r.answer),
      asked(l.camera.id),
    ]),
    ...c.lenses.map((l) => [
      'lens',
      l.lens.maker,
      l.lens.model,
      '',
      '',
      l.lens.mount,
      l.state,
      l.found.map((f) => `${f.title} ${f.release}: ${f.quantities.join(', ')}${f.but ? ` (${f.but})` : ''}`),
      l.missing,
      ...c.editors.map(() => ''),
      asked(l.lens.id),
    ]),
  ]);
}
