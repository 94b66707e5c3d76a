import { compareVersions } from '@/server/versions/service';
import { Difference } from '@/ui/item/Difference';
import { VersionTable } from '@/ui/item/VersionTable';
import { itemOfRequest, personOfRequest, type PageProps } from '../request';

interface Props extends Pick<PageProps, 'searchParams'> {
  id: string;
}

/** The versions, and what two of them differ in where the address names them. */
export async function Versions({ id, searchParams }: Props) {
  const person = await personOfRequest();
  const { versions } = await itemOfRequest(id);
  const search = await searchParams;
  const older = versions.find((version) => version.id === search.older);
  const newer = versions.find((version) => version.id === search.newer);
  const difference = older && newer && older !== newer ? await compareVersions(person, older.id, newer.id) : null;
  return (
    <>
      {difference && <Difference {...difference} />}
      <VersionTable
        versions={versions.map((version) => ({
          id: version.id,
          number: version.number,
          variant: version.variant,
          status: version.status,
          file: version.file_name,
          size: version.size,
          notes: version.notes,
          author: version.author,
          at: version.created_at.toISOString(),
          format: version.format,
        }))}
      />
    </>
  );
}
