import { markSeen } from '@/server/items/fresh';
import { route } from '@/server/http';

export const POST = route(async (person) => markSeen(person).then(() => ({})));
