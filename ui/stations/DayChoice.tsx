'use client';
/** The day of which a page tells, kept in the address. */
import { useRouter } from 'next/navigation';
import { isDay } from '@/core/day';

interface Props {
  address: string;
  day: string;
  today: string;
}

const DAY_MS = 24 * 3600e3;
const beside = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

export function DayChoice({ address, day, today }: Props) {
  const router = useRouter();
  const show = (asked: string) => router.push(asked === today ? address : `${address}?on=${asked}`);
  return (
    <div className="mb-5 flex flex-wrap items-center gap-2">
      <button className="button" onClick={() => show(beside(day, -1))}>
        The day before
      </button>
      <input
        type="date"
        className="field"
        aria-label="On which day"
        defaultValue={day}
        max={today}
        onChange={(event) => {
          const asked = event.target.value;
          // while a year is being typed it is one of long ago
          if (isDay(asked) && asked <= today && asked > '2000') show(asked);
        }}
      />
      <button className="button" disabled={day === today} onClick={() => show(beside(day, 1))}>
        The day after
      </button>
      {day !== today && (
        <button className="button" onClick={() => show(today)}>
          Today
        </button>
      )}
    </div>
  );
}
