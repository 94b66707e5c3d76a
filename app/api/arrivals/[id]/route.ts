import {
  acceptArrival,
  correctEntries,
  discardArrival,
  dropArrival,
  arrivalFor,
  undoArrival,
} from '@/server/arrivals/service';
import type { NewLicence } from '@/server/licences/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) => {
  const b = await body<{
    entries?: number[] | null;
    except?: number[];
    shelfId?: string;
    byKind?: Record<string, string>;
    newShelf?: string;
    licenceId?: string | null;
    newLicence?: NewLicence;
    supplier?: string;
    release?: string;
    source?: Record<string, string>;
  }>(request);
  return acceptArrival(person, (await params).id, {
    entries: b.entries ?? null,
    except: b.except ?? [],
    shelfId: b.shelfId ?? null,
    newShelf: b.newShelf ?? '',
    newLicence: b.newLicence ?? null,
    byKind: b.byKind ?? {},
    licenceId: b.licenceId ?? null,
    supplier: b.supplier,
    release: b.release,
    source: b.source,
  });
});
/** A person says otherwise of some entries. */
export const PATCH = route<C>(async (person, request, { params }) =>
  correctEntries(person, (await params).id, await body(request)),
);
/** Discards an arrival, gives up one that is still arriving, or (?undo) puts an accepted one back. */
export const DELETE = route<C>(async (person, request, { params }) => {
  const { id } = await params;
  if (new URL(request.url).searchParams.has('undo')) return undoArrival(person, id);
  const { arrival } = await arrivalFor(person, id);
  await (arrival.status === 'arriving' ? dropArrival(person, id) : discardArrival(person, id));
  return {};
});
