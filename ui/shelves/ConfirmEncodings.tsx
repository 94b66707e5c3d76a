'use client';
/** Says of all the chosen looks at once what their values mean, where that is only assumed. */
import { EncodingOfMany } from '../item/EncodingOfMany';
import { useShelves } from './shelves-context';

export function ConfirmEncodings() {
  const { ask, selection, chooseNothing } = useShelves();
  const looks = [...selection.values()].filter((spine) => spine.assumed);
  return <EncodingOfMany looks={looks} onClose={() => ask(null)} onDone={chooseNothing} />;
}
