'use client';
import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';

/**
 * A part of a screen whose code is fetched when it is first shown. It has a boundary of its own: without one React holds back
 * the whole change that shows the part until its code is there, so that a box that was ticked would spring back.
 */
export function fetchedWhenShown<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
): (props: Props) => ReactNode {
  const Part = lazy(async () => ({ default: await load() }));
  return function FetchedWhenShown(props: Props): ReactNode {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}
