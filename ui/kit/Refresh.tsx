'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useTransition } from 'react';
import { ask } from './connection';
import { useLive } from './live';

/**
 * Reloads the page's data when something happens to one of the subjects; once at a time, however much happens meanwhile:
 * where many things happen at once, a way to another page would wait for one reload after the other. Renders nothing.
 */
export function Refresh({ subjects }: { subjects: string[] }) {
  const router = useRouter();
  const [pending, begin] = useTransition();
  const isAsked = useRef(false);
  const refresh = () => {
    if (pending) isAsked.current = true;
    // asked for while the server is gone, Next would leave the page, and what is typed in it
    else void ask().then((there) => there && begin(() => router.refresh()));
  };
  const latest = useRef(refresh);
  useEffect(() => {
    latest.current = refresh;
  });
  useEffect(() => {
    if (pending || !isAsked.current) return;
    isAsked.current = false;
    latest.current();
  }, [pending]);
  useLive((m) => m.type === 'event' && subjects.includes(m.event.subject), refresh);
  return null;
}
