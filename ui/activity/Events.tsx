/** Events as lines: who did what to what, and what it was before and after. */
import { must } from '@/core/must';
import Link from 'next/link';
import { Ago } from '../kit/time';

export interface EventLine {
  id: number;
  at: string;
  actor: string;
  subject: string;
  subjectId: string;
  action: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
  title: string | null;
}
const places: Record<string, (id: string) => string> = {
  item: (id) => `/items/${id}`,
  arrival: (id) => `/intake/${id}`,
  station: (id) => `/stations/${id}`,
  rollout: (id) => `/rollouts/${id}`,
  shelf: (id) => `/shelves?shelf=${id}`,
};
const text = (value: unknown): string => {
  if (value === null || value === undefined || value === '') return '–';
  if (Array.isArray(value)) return value.length ? value.map(text).join(', ') : '–';
  if (typeof value === 'object')
    return (
      Object.entries(value)
        .filter(([, x]) => x !== null)
        .map(([k, x]) => `${k} ${text(x)}`)
        .join(', ') || '–'
    );
  return String(value).slice(0, 160);
};

export function Change({
  before,
  after,
}: {
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
}) {
  const keys = [...new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})])].filter(
    (k) => text(before?.[k]) !== text(after?.[k]),
  );
  return keys.length ? (
    <span className="block text-[12px] text-soft [overflow-wrap:anywhere]">
      {keys.slice(0, 8).map((key) => (
        <span key={key} className="mr-3">
          {key.replace('_', ' ')}:{' '}
          {before && key in before ? (
            <>
              <s>{text(before[key])}</s> →{' '}
            </>
          ) : null}
          {text(after?.[key])}
        </span>
      ))}
    </span>
  ) : null;
}

export function Events({ events, subject = true }: { events: EventLine[]; subject?: boolean }) {
  return (
    <ul aria-label="Activity">
      {events.map((eventLine) => (
        <li key={eventLine.id} className="grid grid-cols-[120px_minmax(0,1fr)] gap-4 border-t border-line py-2">
          <span className="whitespace-nowrap text-soft">
            <Ago at={eventLine.at} />
          </span>
          <span>
            <b className="font-medium">{eventLine.actor || 'Etagere'}</b>: <span>{eventLine.action}</span>
            {subject && (
              <>
                , <span className="text-soft">{eventLine.subject}</span>{' '}
                {places[eventLine.subject] && eventLine.title ? (
                  <Link
                    className="underline [overflow-wrap:anywhere]"
                    href={must(places[eventLine.subject])(eventLine.subjectId)}
                  >
                    {eventLine.title}
                  </Link>
                ) : (
                  <span className="[overflow-wrap:anywhere]">{eventLine.title ?? ''}</span>
                )}
              </>
            )}
            <Change before={eventLine.before} after={eventLine.after} />
          </span>
        </li>
      ))}
    </ul>
  );
}
