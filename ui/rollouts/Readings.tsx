/** What editors listed before and after: what came into their lists, what went, what they refused. */
import { counted } from '../kit/words';

interface Thing {
  path: string;
  title: string;
}
export interface ReadingShown {
  editor: string;
  version: string;
  title: string;
  before: number;
  after: number;
  came: readonly Thing[];
  gone: readonly Thing[];
  refused: readonly { path: string; reason: string }[];
  /** not told one by one */ more: number;
  /** files of which it has said nothing yet */ waiting: number;
}

/** So many are named; the rest is counted. */
const MOST_NAMED = 12;

function named(things: readonly Thing[], more: number): string {
  const shown = things.slice(0, MOST_NAMED).map(({ title }) => title);
  const rest = things.length - shown.length + more;
  return rest > 0 ? `${shown.join(', ')} and ${rest} more` : shown.join(', ');
}

export function Readings({ readings }: { readings: readonly ReadingShown[] }) {
  if (!readings.length) return null;
  return (
    <ul className="mb-2 text-[12.5px] text-soft" aria-label="What the editors listed before and after">
      {readings.map((reading) => (
        <li key={`${reading.editor} ${reading.version}`}>
          <ReadingLine reading={reading} />
        </li>
      ))}
    </ul>
  );
}

export function ReadingLine({ reading }: { reading: ReadingShown }) {
  const { title, before, after, came, gone, refused, more, waiting } = reading;
  return (
    <>
      {title} listed {before} before and {after} after.
      {came.length > 0 && <> Came: {named(came, more)}.</>}
      {gone.length > 0 && <> Went: {named(gone, 0)}.</>}
      {refused.length > 0 && (
        <span className="text-madder">
          {' '}
          Refused:{' '}
          {refused
            .slice(0, MOST_NAMED)
            .map(({ path, reason }) => `${path} (${reason})`)
            .join('; ')}
          .
        </span>
      )}
      {waiting > 0 && <> Of {counted(waiting, 'file')} it says nothing yet.</>}
    </>
  );
}
