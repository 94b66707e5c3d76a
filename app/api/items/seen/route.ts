import { markSeen } from '@/server/items/fresh';
import { route } from '@/server/web';

export const POST = route(async (person) => markSeen(person).then(() => ({})));
