'use client';
/** A frame's full size; asking for it also unpacks the frame for the parts that may be asked for next. */
import { useQuery } from '@tanstack/react-query';
import { call } from '../../kit/call';
import type { Size } from '../model/view';

/** Null until it is known. What cannot be unpacked shows its fault as a whole. @param wanted false for what is not kept at full size */
export function useFullSize(frame: string, wanted: boolean): Size | null {
  const { data } = useQuery({
    queryKey: ['full size', frame],
    queryFn: ({ signal }) => call('GET /api/frames/:id/full', { id: frame, signal }),
    enabled: wanted,
    staleTime: Infinity,
  });
  return (wanted && data) || null;
}
