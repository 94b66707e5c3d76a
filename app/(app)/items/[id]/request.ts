/** What the parts of an item's page read, each once a request. */
import { notFound } from 'next/navigation';
import { cache } from 'react';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { listFrames } from '@/server/frames/service';
import { itemFor } from '@/server/items/service';
import { signedInPerson } from '@/server/http';

export interface PageProps {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ frame?: string; strength?: string; older?: string; newer?: string }>;
}

export const personOfRequest = cache(signedInPerson);

/** The item with its versions; null where there is none. */
export const findItem = cache(async (id: string) => {
  const person = await personOfRequest();
  if (!isUuid(id)) return null;
  return itemFor(person, id).catch((error: unknown) => {
    if (error instanceof Problem) return null;
    throw error;
  });
});

export async function itemOfRequest(id: string) {
  const found = await findItem(id);
  if (!found) notFound();
  return found;
}

export const framesOfRequest = cache(async () => listFrames(await personOfRequest()));
