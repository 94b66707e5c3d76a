import { markSeen } from '@/server/search/fresh';
import { route } from '@/server/http';

export const POST = route(async (person) => markSeen(person).then(() => ({})));
