/** What lies in the editors' folders and is not ours: told of, taken in, or ignored until somebody changes it. */
import { counted } from '../kit/words';
import { IgnoreThere } from './IgnoreThere';
import type { Where } from './PathThere';
import { Placements, type PlacedFile } from './Placements';
import { TakeIn } from './TakeIn';

/** So many are ignored at once. */
const MOST_AT_ONCE = 500;

interface Props {
  station: string;
  where: Where;
  rows: readonly PlacedFile[];
  /** paths of which nobody wants to hear */ ignored: ReadonlySet<string>;
  /** how many of them can be taken in */ found: number;
  may: boolean;
}

export function Theirs({ station, where, rows, ignored, found, may }: Props) {
  const told = rows.filter(({ path }) => !ignored.has(path));
  const passedOver = rows.filter(({ path }) => ignored.has(path));
  return (
    <>
      <div className="mb-1 mt-8 flex flex-wrap items-center gap-3">
        <h2 className="text-[17px]">Theirs</h2>
        {found > 0 && <TakeIn stationId={station} count={found} />}
        {may && told.length > 1 && told.length <= MOST_AT_ONCE && (
          <IgnoreThere station={station} paths={told.map(({ path }) => path)} />
        )}
      </div>
      <p className="mb-1 text-[12px] text-soft">
        Lies in the editors’ folders and was not put there by Etagere. It is left alone, unless somebody plans to take
        away what lies there twice; what is taken in stays where it is, too.
      </p>
      {told.length > 0 && (
        <Placements
          rows={told}
          where={where}
          action={({ path }) => may && <IgnoreThere one station={station} paths={[path]} />}
        />
      )}
      {passedOver.length > 0 && (
        <details className="mt-3">
          <summary className="cursor-pointer text-soft">
            {counted(passedOver.length, 'file')} that {passedOver.length === 1 ? 'is' : 'are'} ignored until somebody
            changes {passedOver.length === 1 ? 'it' : 'them'}
          </summary>
          <Placements
            rows={passedOver}
            where={where}
            action={({ path }) => may && <IgnoreThere one ignored station={station} paths={[path]} />}
          />
        </details>
      )}
    </>
  );
}
