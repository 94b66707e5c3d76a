'use client';
import { useEffect, useRef, useState, type ReactNode } from 'react';

/** Renders what it holds once it is near the window; before that it keeps the height of a row of spines. */
export function InSight({ render }: { render: () => ReactNode }) {
  const [seen, setSeen] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (seen || !box.current) return;
    const eye = new IntersectionObserver(
      (entries) => {
        if (entries.some((e) => e.isIntersecting)) setSeen(true);
      },
      { rootMargin: '900px 0px' },
    );
    eye.observe(box.current);
    return () => eye.disconnect();
  }, [seen]);
  return seen ? render() : <div ref={box} className="h-[175px] w-full" />;
}
