import { versionFor } from '@/server/items/service';
import { getBlob } from '@/server/blobs/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, _r, { params }) => {
  const version = await versionFor(person, (await params).id);
  const name = version.file_name.replace(/[^\w .()-]+/g, '_');
  return new Response(new Uint8Array(await getBlob(version.sha256)), {
    headers: {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename="${name}"; filename*=UTF-8''${encodeURIComponent(version.file_name)}`,
    },
  });
});
