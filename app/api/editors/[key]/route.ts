import { descriptorJson } from '@/server/editors/service';
import { route } from '@/server/http';

type C = { params: Promise<{ key: string }> };

export const GET = route<C>(async (person, request, { params }) => {
  const key = decodeURIComponent((await params).key);
  const name = new URL(request.url).searchParams.get('n');
  return new Response(await descriptorJson(person, key, name ? Number(name) : null), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="${key.replace(/[^\w.@-]/g, '')}.json"`,
    },
  });
});
