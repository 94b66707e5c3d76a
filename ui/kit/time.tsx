'use client';
import { useEffect, useState } from 'react';

const units: [number, string][] = [
  [86400, 'day'],
  [3600, 'hour'],
  [60, 'min'],
  [1, 's'],
];

/** "3 min ago", kept current; the exact time in the viewer's zone on hover. */
export function Ago({ at, never = 'never' }: { at: string | null; never?: string }) {
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    const tick = () => setNow(Date.now());
    const first = setTimeout(tick, 0);
    const timer = setInterval(tick, 10_000);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, []);
  if (!at) return <span>{never}</span>;
  const seconds = now === null ? null : Math.max(0, Math.round((now - new Date(at).getTime()) / 1000));
  if (seconds === null) return <time dateTime={at}>{at.slice(0, 10)}</time>;
  const [size, name] = units.find(([u]) => seconds >= u) ?? [1, 's'];
  const count = Math.floor(seconds / size);
  return (
    <time dateTime={at} title={new Date(at).toLocaleString()}>
      {seconds < 5 ? 'just now' : `${count} ${name}${count > 1 && size >= 3600 ? 's' : ''} ago`}
    </time>
  );
}
