'use client';
import { useEffect, useState } from 'react';

/** A value once it has stood still for a moment, so that typing asks the server once and not at every key. */
export function useSettled<T>(value: T, ms: number): T {
  const text = JSON.stringify(value);
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), ms);
    return () => clearTimeout(timer);
  }, [text, ms]);
  return JSON.parse(settled) as T;
}
