/** Events as the lines of a log, and what was before and after where that says more. */
import Link from 'next/link';
import { actorWords, tell } from '@/core/activity/sentences';
import { factName } from '../item/value-words';
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
  order: () => '/stations/orders',
  conversion: (id) => `/convert/${id}`,
  'editor-chart': (id) => `/convert/charts/${id}`,
  shelf: (id) => `/shelves?shelf=${id}`,
  pack: (id) => `/packs/${id}`,
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

function Change({ before, after }: { before: Record<string, unknown> | null; after: Record<string, unknown> | null }) {
  const keys = [...new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})])].filter(
    (k) => text(before?.[k]) !== text(after?.[k]),
  );
  return keys.length ? (
    <span className="block text-[12px] text-soft [overflow-wrap:anywhere]">
      {keys.slice(0, 8).map((key) => (
        <span key={key} className="mr-3">
          {factName(key)}:{' '}
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

/** A line of a log: who did what, with the subject as a link; on the subject's own page it is named all the same. */
export function Events({ events }: { events: EventLine[] }) {
  return (
    <ul aria-label="Activity">
      {events.map((event) => (
        <li key={event.id} className="grid grid-cols-[120px_minmax(0,1fr)] gap-4 border-t border-line py-2">
          <span className="whitespace-nowrap text-soft">
            <Ago at={event.at} />
          </span>
          <span className="[overflow-wrap:anywhere]">
            <Sentence event={event} />
          </span>
        </li>
      ))}
    </ul>
  );
}

function Sentence({ event }: { event: EventLine }) {
  const { start, end, named, fields } = tell(event);
  return (
    <>
      <b className="font-medium">{actorWords(event.actor)}</b> {start}
      {named && <Name event={event} />}
      {end}
      {fields && <Change before={event.before} after={event.after} />}
    </>
  );
}

/** What the subject is called now, or was then where it is gone. */
function Name({ event: { subject, subjectId, title, before, after } }: { event: EventLine }) {
  const place = places[subject];
  if (title && place)
    return (
      <Link prefetch={false} className="underline" href={place(subjectId)}>
        {title}
      </Link>
    );
  const names = [title, after?.name, after?.title, before?.name, before?.title];
  return names.find((name): name is string => typeof name === 'string' && name !== '') ?? 'what is gone since';
}
