/** What the parts of an item's page read, each once a request. */
import { notFound } from 'next/navigation';
import { setTimeout as wait } from 'node:timers/promises';
import { cache } from 'react';
import { orNull } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { activityOfItem } from '@/server/activity/service';
import { verdictsOf } from '@/server/bench/decide';
import { listFrames } from '@/server/frames/service';
import { signedInPerson } from '@/server/http';
import { inspectionOf, itemFor, lineageOf, packsOf, placementsOf } from '@/server/items/service';
import { licenceChoices } from '@/server/licences/service';
import type { Person } from '@/server/people/roles';
import { presetShownFor, referencesOf } from '@/server/references/service';
import { ribbonsOfItem } from '@/server/ribbons/service';

export interface PageProps {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ frame?: string; strength?: string; older?: string; newer?: string; form?: string }>;
}

export const personOfRequest = cache(signedInPerson);

/** The item with its versions; null where there is none. */
export const findItem = cache(async (id: string) => {
  const person = await personOfRequest();
  if (!isUuid(id)) return null;
  return orNull(itemFor(person, id));
});

export async function itemOfRequest(id: string) {
  const found = await findItem(id);
  if (!found) notFound();
  return found;
}

/** What is read by the item's id alone. */
const reading = <T>(read: (person: Person, id: string) => Promise<T>) =>
  cache(async (id: string) => read(await personOfRequest(), id));

export const framesOfRequest = cache(async () => listFrames(await personOfRequest()));
export const licencesOfRequest = cache(async () => licenceChoices(await personOfRequest()));
export const packsOfRequest = reading(packsOf);
export const ribbonsOfRequest = reading(ribbonsOfItem);
export const placementsOfRequest = reading(placementsOf);
export const verdictsOfRequest = reading(verdictsOf);
export const historyOfRequest = reading(activityOfItem);
export const lineageOfRequest = cache(async (id: string) =>
  lineageOf(await personOfRequest(), await itemOfRequest(id)),
);
/** The form of the design that the address names, by its newest version; the plain one where it names none. */
export async function formOfRequest(id: string, searchParams: PageProps['searchParams']) {
  const [{ forms, newest }, { form: wanted }] = await Promise.all([itemOfRequest(id), searchParams]);
  return forms.find((form) => form.id === wanted) ?? newest;
}

/** What the shown version of a preset refers to. */
export const referencesOfRequest = cache(async (versionId: string) => referencesOf(await personOfRequest(), versionId));

/** The same with what is said of it by its item. */
const shownOfRequest = async (id: string, searchParams: PageProps['searchParams']) => {
  const [{ item }, form] = await Promise.all([itemOfRequest(id), formOfRequest(id, searchParams)]);
  return { ...form, kind: item.kind, title: item.title };
};

/** How the preset that is shown is rendered, and what of it is not; null for items of other kinds. */
export const presetOfRequest = cache(async (id: string, searchParams: PageProps['searchParams']) =>
  presetShownFor(await personOfRequest(), await shownOfRequest(id, searchParams)),
);

/** So long the picture and what is read beside it have the processors to themselves. */
const PICTURE_FIRST_MS = 250;

/** Where it was not computed yet, it takes more than all the rest of the page, so that it follows. */
export const inspectionOfRequest = cache(async (id: string, searchParams: PageProps['searchParams']) =>
  inspectionOf(await personOfRequest(), await shownOfRequest(id, searchParams), () => wait(PICTURE_FIRST_MS)),
);

/**
 * Begins to read all that the page needs. Parts that begin when they are painted wait one after the other, which takes
 * twice as long where many people are served at once. What fails is told where the part asks for it.
 */
export function beginReading(id: string, searchParams: PageProps['searchParams']): void {
  if (!isUuid(id)) return;
  const begun = [
    findItem(id),
    framesOfRequest(),
    licencesOfRequest(),
    packsOfRequest(id),
    ribbonsOfRequest(id),
    placementsOfRequest(id),
    verdictsOfRequest(id),
    historyOfRequest(id),
    lineageOfRequest(id),
    inspectionOfRequest(id, searchParams),
  ];
  for (const one of begun) one.catch(() => {});
}
