'use client';
import { useEffect, useRef, useState, type ReactNode } from 'react';

interface Props {
  render: () => ReactNode;
  /** what stands there until then, of about the same height */ afar: ReactNode;
}

/** Renders what it holds once it is near the window. */
export function InSight({ render, afar }: Props) {
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
  return seen ? render() : <div ref={box}>{afar}</div>;
}
