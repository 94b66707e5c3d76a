/* eslint-disable @next/next/no-img-element -- made by the server, at the width that it has */
/** One frame as each list of opening rules has it begun, side by side; lists that begin it alike share a picture. */
import Link from 'next/link';
import { settings, settingNames, type Rule } from '@/core/opening/rule';

interface Beginning {
  start: Rule['start'];
  who: readonly { words: string; station: string | null; rule: string }[];
  /** what is done by a calibration; "" where nothing is */ lens: string;
  /** the lens database that it is of */ database: string;
  notShown: readonly string[];
  /** whether a lens database at these stations would show more */ needsDatabase: boolean;
}
interface Begun {
  beginnings: readonly Beginning[];
  /** in ΔE00, from the studio's picture; null where this is it */ apart: { mean: number; p95: number } | null;
}
interface Database {
  version: string;
  title: string;
}
interface Props {
  frame: { id: string; name: string };
  camera: boolean;
  begun: readonly Begun[];
  /** one that measures the lens of the frame, for whoever may roll it out */ database: Database | null;
  unsure: readonly { words: string; reason: string }[];
}

export function OnFrame({ frame, camera, begun, database, unsure }: Props) {
  return (
    <>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(320px,1fr))] gap-x-6 gap-y-8 *:min-w-0 max-[720px]:grid-cols-1">
        {begun.map((one) => (
          <li key={keyOf(one.beginnings[0])}>
            <Picture frame={frame} begun={one} withPiece={camera} database={database} />
          </li>
        ))}
      </ul>
      {unsure.length > 0 && (
        <ul className="mt-4">
          {unsure.map(({ words, reason }) => (
            <li key={words} className="text-soft">
              {words}: not known, since {reason}
            </li>
          ))}
        </ul>
      )}
      <p className="mt-4 max-w-[760px] text-[12px] text-soft">
        {camera
          ? 'Of what a rule does not say, all pictures are alike: the matrices of the file and a plain curve, no offset, the lens as it drew. An editor’s own way may differ. Below each picture is a piece out of its middle at full size, where noise is seen; it is taken out as Etagere does it, and each editor has its own way.'
          : 'This frame is no camera data: profiles, base curves, offsets, lens corrections and noise reduction are not shown on it. Choose a camera’s frame to see them.'}{' '}
        No picture shows the raw engine: each editor has its own.
      </p>
    </>
  );
}

/** The same start may mean another calibration at another station. */
const keyOf = (beginning: Beginning | undefined): string =>
  JSON.stringify([beginning?.start, beginning?.lens, beginning?.notShown, beginning?.needsDatabase]);

const startWords = (start: Rule['start']): string =>
  settingNames
    .flatMap((name) => (start[name] ? [`${settings[name].label.toLowerCase()}: ${start[name]}`] : []))
    .join('; ');

/** So many are named one by one. */
const MOST_NAMED = 12;
const MOST_IN_LABEL = 3;

/** The first of them, and how many more there are. */
const namesOf = (who: readonly string[]): string =>
  [...who.slice(0, MOST_IN_LABEL), ...(who.length > MOST_IN_LABEL ? [`${who.length - MOST_IN_LABEL} more`] : [])].join(
    '; ',
  );

interface PictureProps {
  frame: Props['frame'];
  begun: Begun;
  /** whether noise is shown too, on a piece at full size */ withPiece: boolean;
  database: Database | null;
}

function Picture({ frame, begun: { beginnings, apart }, withPiece, database }: PictureProps) {
  const who = beginnings.flatMap((beginning) => beginning.who.map(({ words }) => words));
  const [first] = beginnings;
  const address = new URLSearchParams({ frame: frame.id, start: JSON.stringify(first?.start ?? {}) });
  if (first?.database) address.set('database', first.database);
  return (
    <figure aria-label={`As begun by ${namesOf(who)}`}>
      <img
        src={`/api/opening/picture?${address}`}
        alt={`${frame.name}, as begun by ${namesOf(who)}`}
        className="mb-2 block w-full bg-press"
      />
      {withPiece && (
        <img
          src={`/api/opening/picture?${address}&piece=yes`}
          alt={`A piece out of the middle of ${frame.name}, at full size, as begun by ${namesOf(who)}`}
          className="mb-2 block bg-press"
        />
      )}
      <figcaption>
        {apart && (
          <p className="tabular-nums">
            {apart.mean === 0
              ? 'the same colors as the studio’s'
              : `ΔE00 ${apart.mean.toFixed(2)} from the studio’s on average`}
          </p>
        )}
        {beginnings.map((beginning) => (
          <Words key={keyOf(beginning)} beginning={beginning} database={database} />
        ))}
      </figcaption>
    </figure>
  );
}

/** Who begins it so, by which rule, with what. */
function Words({ beginning, database }: { beginning: Beginning; database: Database | null }) {
  const { start, who, lens, notShown, needsDatabase } = beginning;
  const stations = [...new Set(who.flatMap(({ station }) => station ?? []))];
  return (
    <div className="mt-1.5">
      {who.slice(0, MOST_NAMED).map(({ words, station, rule }) => (
        <p key={words}>
          {station ? (
            <Link href={`/stations/${station}`} className="font-serif text-[15px] hover:underline">
              {words}
            </Link>
          ) : (
            <span className="font-serif text-[15px]">{words}</span>
          )}{' '}
          <span className="text-[12px] text-soft">{rule ? `rule for ${rule}` : 'no rule fits'}</span>
        </p>
      ))}
      {who.length > MOST_NAMED && <p className="text-soft">and {who.length - MOST_NAMED} more</p>}
      <p>{startWords(start) || 'the editor’s own way'}</p>
      {lens && <p className="text-[12px] text-soft">lens: {lens}</p>}
      {notShown.map((words) => (
        <p key={words} className="text-[12px] text-soft">
          not shown: {words}
        </p>
      ))}
      {needsDatabase && database && (
        <Link
          href={`/rollouts/new?versions=${database.version}&stations=${stations.join(',')}`}
          className="text-[12px] underline"
        >
          Roll out {database.title} there
        </Link>
      )}
    </div>
  );
}
