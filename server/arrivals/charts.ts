/** Charts that come back with a delivery, from an editor that stands elsewhere. */
import type { BodyOf } from '@/core/api';
import { arrivalEndpoints } from '@/core/api/arrivals';
import { fileNameOf } from '@/core/paths';
import { EDITOR_CHART } from '@/core/recognise/recognised';
import { Problem } from '@/core/problem';
import { getBlob } from '../blobs/service';
import { readChartByNumber } from '../editor-charts/reading';
import { checked } from '../input';
import type { Person } from '../people/roles';
import { keptEntry } from './shown';

/** Reads the chart that a file of an arrival is; the chart, by its number. The arrival stays as it is. */
export async function readChartOfArrival(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/arrivals/:id/chart'>,
): Promise<{ id: string }> {
  const { entry } = checked(arrivalEndpoints['POST /api/arrivals/:id/chart'].body, input);
  const { path, format, sha256 } = await keptEntry(person, id, entry);
  if (format !== EDITOR_CHART)
    throw new Problem('chart-unreadable', `${path} is no chart that came back.`, path, 'Choose one that is.');
  return readChartByNumber(person, fileNameOf(path), new Uint8Array(await getBlob(sha256)));
}
