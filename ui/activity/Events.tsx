/** Events as lines: who did what to what, and what it was before and after. */
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
  intake: (id) => `/intake/${id}`,
  station: (id) => `/stations/${id}`,
  rollout: (id) => `/rollouts/${id}`,
  shelf: (id) => `/shelves?shelf=${id}`,
};
const text = (v: unknown): string => {
  if (v === null || v === undefined || v === '') return '–';
  if (Array.isArray(v)) return v.length ? v.map(text).join(', ') : '–';
  if (typeof v === 'object')
    return (
      Object.entries(v)
        .filter(([, x]) => x !== null)
        .map(([k, x]) => `${k} ${text(x)}`)
        .join(', ') || '–'
    );
  return String(v).slice(0, 160);
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
      {keys.slice(0, 8).map((k) => (
        <span key={k} className="mr-3">
          {k.replace('_', ' ')}:{' '}
          {before && k in before ? (
            <>
              <s>{text(before[k])}</s> →{' '}
            </>
          ) : null}
          {text(after?.[k])}
        </span>
      ))}
    </span>
  ) : null;
}

export function Events({ events, subject = true }: { events: EventLine[]; subject?: boolean }) {
  return (
    <ul aria-label="Activity">
      {events.map((e) => (
        <li key={e.id} className="grid grid-cols-[120px_minmax(0,1fr)] gap-4 border-t border-line py-2">
          <span className="whitespace-nowrap text-soft">
            <Ago at={e.at} />
          </span>
          <span>
            <b className="font-medium">{e.actor || 'Etagere'}</b>: <span>{e.action}</span>
            {subject && (
              <>
                , <span className="text-soft">{e.subject}</span>{' '}
                {places[e.subject] && e.title ? (
                  <Link className="underline [overflow-wrap:anywhere]" href={places[e.subject]!(e.subjectId)}>
                    {e.title}
                  </Link>
                ) : (
                  <span className="[overflow-wrap:anywhere]">{e.title ?? ''}</span>
                )}
              </>
            )}
            <Change before={e.before} after={e.after} />
          </span>
        </li>
      ))}
    </ul>
  );
}
