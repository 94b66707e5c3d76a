import { planRollout } from '@/server/rollouts/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => ({ id: await planRollout(person, await body(request)) }));
