'use client';
/** A frame's full size; asking for it also unpacks the frame for the parts that may be asked for next. */
import { useEffect, useState } from 'react';
import { call } from '../../kit/call';
import type { Size } from '../model/view';

/** @param wanted false for what is not kept at full size */
export function useFullSize(frame: string, wanted: boolean): Size | null {
  const [known, setKnown] = useState<{ frame: string; size: Size } | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let live = true;
    call<Size>(`/api/frames/${frame}/full`)
      .then((size) => {
        if (live) setKnown({ frame, size });
      })
      .catch(() => {
        /* what cannot be unpacked shows its fault as a whole */
      });
    return () => {
      live = false;
    };
  }, [frame, wanted]);
  return wanted && known?.frame === frame ? known.size : null;
}
