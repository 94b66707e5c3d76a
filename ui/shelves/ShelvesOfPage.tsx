'use client';
/** The shelves, from what came with the page. */
import { useMemo } from 'react';
import { unpack, type Packed } from '../kit/packed';
import { Shelves } from './Shelves';
import type { ShelvesProps } from './shelves-context';

export function ShelvesOfPage({ packed }: { packed: Packed<ShelvesProps> }) {
  const props = useMemo(() => unpack(packed), [packed]);
  return <Shelves {...props} />;
}
