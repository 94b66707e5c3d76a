'use client';
import { useRouter } from 'next/navigation';
import { ask } from './connection';
import { useLive } from './live';

/** Reloads the page's data when something happens to one of the subjects. Renders nothing. */
export function Refresh({ subjects }: { subjects: string[] }) {
  const router = useRouter();
  useLive(
    (m) => m.type === 'event' && subjects.includes(m.event.subject),
    // asked for while the server is gone, Next would leave the page, and what is typed in it
    () => void ask().then((there) => there && router.refresh()),
  );
  return null;
}
