import { planRollout } from '@/server/rollouts/planning';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => ({ id: await planRollout(person, await body(request)) }));
