import { newCode } from '@/server/stations/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, _r, { params }) => ({ code: await newCode(person, (await params).id) }));
