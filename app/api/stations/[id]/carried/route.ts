import { attachment, route } from '@/server/http';
import { makeCarried } from '@/server/stations/carried';

export const POST = route<{ params: Promise<{ id: string }> }>(async (person, request, { params }) => {
  const server = request.headers.get('origin') ?? new URL(request.url).origin;
  const { name, bytes } = await makeCarried(person, (await params).id, server);
  return attachment(name, bytes);
});
