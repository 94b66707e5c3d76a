'use client';
/** Begins the plan of a conversion of what is given, and leads to it. */
import { useRouter } from 'next/navigation';
import type { BodyOf } from '@/core/api';
import type { Action } from '../kit/action';
import { call } from '../kit/call';

/** @returns what a button or a menu does */
export function useConvert(action: Action): {
  convert: (of: BodyOf<'POST /api/conversions'>) => void;
  again: (items: readonly string[]) => void;
} {
  const router = useRouter();
  const lead = (begin: () => Promise<{ id: string }>) =>
    void action.run(async () => {
      const { id } = await begin();
      router.push(`/convert/${id}`);
    });
  return {
    convert: (of) => lead(() => call('POST /api/conversions', { body: of })),
    again: (items) => lead(() => call('POST /api/conversions/again', { body: { items: [...items] } })),
  };
}
