import { takeInFound } from '@/server/stations/station-arrival';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

/** Takes in what lies at a station and is not ours. */
export const POST = route<C>(async (person, _r, { params }) => takeInFound(person, (await params).id));
