'use client';
/** Says when the server does not answer, keeps the page as it is meanwhile, and goes on when it answers again. */
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { ask, useGone } from '../kit/connection';
import { useToast } from '../kit/toast';

export function Connection() {
  const gone = useGone();
  const router = useRouter();
  const tell = useToast();
  const wasGone = useRef(false);
  useEffect(() => {
    void (navigator as Partial<Navigator>).serviceWorker?.register('/offline-worker.js').catch(() => {});
  }, []);
  useEffect(() => {
    if (!gone && wasGone.current) {
      tell({ words: 'Etagere answers again.' });
      router.refresh();
    }
    wasGone.current = gone;
  }, [gone, router, tell]);
  return gone ? <Banner /> : null;
}

/** A link that is followed now would lead away from what is typed here, to a page that cannot come. */
function useNoWayOut(onTry: () => void): void {
  const latest = useRef(onTry);
  useEffect(() => {
    latest.current = onTry;
  });
  useEffect(() => {
    const hold = (event: MouseEvent) => {
      const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
      if (!link || link.getAttribute('href')?.startsWith('#')) return;
      event.preventDefault();
      event.stopPropagation();
      latest.current();
    };
    document.addEventListener('click', hold, true);
    return () => document.removeEventListener('click', hold, true);
  }, []);
}

function Banner() {
  const [asking, setAsking] = useState(false);
  const tryNow = () => {
    setAsking(true);
    void ask().finally(() => setAsking(false));
  };
  useNoWayOut(tryNow);
  return (
    <div
      role="alert"
      className="sticky top-[52px] z-20 flex items-center gap-3 border-b border-madder bg-paper px-5 py-2"
    >
      <span className="flex-1">
        <b className="font-semibold">The server does not answer.</b> What is on this page stays, and what you type too.
        It goes on by itself as soon as there is an answer.
      </span>
      <button className="button" disabled={asking} onClick={tryNow}>
        {asking ? 'Trying' : 'Try now'}
      </button>
    </div>
  );
}
