import { listSeen } from '@/server/gear/service';
import { route } from '@/server/http';

export const POST = route((person) => listSeen(person));
