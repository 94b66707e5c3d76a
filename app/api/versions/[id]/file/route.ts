import { versionFor } from '@/server/items/service';
import { getBlob } from '@/server/blobs/service';
import { attachment, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, _r, { params }) => {
  const version = await versionFor(person, (await params).id);
  return attachment(version.file_name, await getBlob(version.sha256));
});
