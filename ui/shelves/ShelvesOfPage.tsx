'use client';
/** The shelves, from what came with the page. */
import { useMemo } from 'react';
import { unpackShelves, type PackedShelves } from './model/packed-shelves';
import { Shelves } from './Shelves';

export function ShelvesOfPage({ packed }: { packed: PackedShelves }) {
  const props = useMemo(() => unpackShelves(packed), [packed]);
  return <Shelves {...props} />;
}
