/** A card without a reader in reach: the files of a rollout for it, as a ZIP with the folders that the card needs. */
import { must } from '@/core/must';
import { zipSync } from 'fflate';
import { Problem } from '@/core/problem';
import { bytesOf, getBlob } from '../blobs/service';
import type { Person } from '../people/roles';
import { rolloutFor } from './service';

export async function cardZip(
  person: Person,
  stationId: string,
  rolloutId: string,
): Promise<{ name: string; bytes: Uint8Array }> {
  const { steps } = await rolloutFor(person, rolloutId);
  const own = steps.filter(
    (s) => s.station_id === stationId && s.sha && (s.do_what === 'put' || s.decision === 'in-step'),
  );
  if (!own.length)
    throw new Problem(
      'not-found',
      'This rollout writes nothing onto this card.',
      rolloutId,
      'Choose a rollout that does.',
    );
  const files: Record<string, Uint8Array> = {};
  // the card's own tree begins below the folder of mounted media
  for (const s of own) files[s.path.replace(/^media\//, '')] = new Uint8Array(await getBlob(bytesOf(must(s.sha))));
  return {
    name: `${must(own[0]).station.replace(/[^\w-]+/g, '-')}.zip`,
    bytes: zipSync(files, { level: 6, mtime: new Date(Date.UTC(2000, 0, 1, 12)) }),
  };
}
