import { trackRequest } from '@/server/gear/service';
import { body, route } from '@/server/http';

export const PATCH = route(async (person, request, { params }: { params: Promise<{ id: string }> }) =>
  trackRequest(person, (await params).id, await body(request)).then(() => ({})),
);
