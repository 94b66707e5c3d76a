import { describeEditor } from '@/server/editors/service';
import { route } from '@/server/web';

/** A descriptor as its JSON text. */
export const POST = route(async (person, request) => describeEditor(person, await request.text()));
