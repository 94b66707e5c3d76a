'use client';
import { useRouter } from 'next/navigation';
import { useLive } from './live';

/** Reloads the page's data when something happens to one of the subjects. Renders nothing. */
export function Refresh({ subjects }: { subjects: string[] }) {
  const router = useRouter();
  useLive(
    (m) => m.type === 'event' && subjects.includes(m.event.subject),
    () => router.refresh(),
  );
  return null;
}
