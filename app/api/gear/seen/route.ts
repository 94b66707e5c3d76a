import { listSeen } from '@/server/gear/service';
import { route } from '@/server/web';

export const POST = route((person) => listSeen(person));
