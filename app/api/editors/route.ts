import { describeEditor } from '@/server/editors/service';
import { route } from '@/server/http';

/** A descriptor as its JSON text. */
export const POST = route(async (person, request) => describeEditor(person, await request.text()));
