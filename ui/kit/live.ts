'use client';
/** Follows the server's events. The tabs of a browser share one stream: whoever holds the lock reads it and tells the others. */
import { useEffect, useRef } from 'react';
import { noteAnswered, noteUnanswered } from './connection';

export interface LiveEvent {
  type: 'event';
  event: { id: number; subject: string; subject_id: string; action: string; actor: string };
  /** of the log, once this is known */ moment: string;
}
export interface LiveJob {
  type: 'job';
  id: string;
}
type Message = LiveEvent | LiveJob;

type Listener = (message: Message) => void;

/** How long a message is kept for a screen that is still on its way: it was made at the server before it can listen. */
const KEPT_FOR_MS = 8000;

const listeners = new Set<Listener>();
let kept: { message: Message; at: number }[] = [];
let started = false;
/** of the log: up to here all is known */
let moment = '';

const recent = (): Message[] => {
  const since = performance.now() - KEPT_FOR_MS;
  kept = kept.filter(({ at }) => at >= since);
  return kept.map(({ message }) => message);
};

function start(): void {
  if (started) return;
  started = true;
  const channel = new BroadcastChannel('etagere-live');
  const tell = (message: Message) => {
    if (message.type === 'event') moment = message.moment;
    recent();
    kept.push({ message, at: performance.now() });
    listeners.forEach((listener) => listener(message));
  };
  // what happened between the making of the page and now, or while the stream was broken
  moment = document.querySelector<HTMLElement>('[data-moment]')?.dataset.moment ?? '';
  const catchUp = async (pass: Listener) => {
    const response = await fetch(`/api/events?since=${encodeURIComponent(moment)}`).catch(() => null);
    if (!response?.ok) return;
    const missed = (await response.json()) as { events: LiveEvent['event'][]; moment: string };
    for (const event of missed.events) pass({ type: 'event', event, moment: missed.moment });
  };
  void catchUp(tell);
  channel.onmessage = (e: MessageEvent<Message>) => tell(e.data);
  const lead = () =>
    new Promise<void>(() => {
      const source = new EventSource('/api/live');
      const share = (message: Message) => {
        tell(message);
        channel.postMessage(message);
      };
      source.onopen = () => {
        noteAnswered();
        void catchUp(share);
      };
      source.onerror = noteUnanswered;
      source.onmessage = (e: MessageEvent<string>) => share(JSON.parse(e.data) as Message);
    });
  // browsers have locks only where the connection is safe, as on the machine itself
  const { locks } = navigator as Partial<Navigator>;
  if (locks) void locks.request('etagere-live', lead);
  else void lead();
}

/**
 * Calls `then` (at most every 250 ms) when a message concerns this screen. A screen that has just come is told the
 * last seconds too: what happened between its making at the server and its first look is not in it.
 */
export function useLive(concerns: (m: Message) => boolean, then: () => void): void {
  const latest = useRef({ concerns, then });
  useEffect(() => {
    latest.current = { concerns, then };
  });
  useEffect(() => {
    start();
    let timer: ReturnType<typeof setTimeout> | null = null;
    const hear: Listener = (message) => {
      if (latest.current.concerns(message))
        timer ??= setTimeout(() => {
          timer = null;
          latest.current.then();
        }, 250);
    };
    recent().forEach(hear);
    listeners.add(hear);
    return () => {
      listeners.delete(hear);
      if (timer) clearTimeout(timer);
    };
  }, []);
}
