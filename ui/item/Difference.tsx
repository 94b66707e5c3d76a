/** What differs between two versions: settings, other facts, curves, and color on frames. */
import type { Movement } from '@/core/lens/movement';
import { valueText } from './value-words';
import { CurveChart } from './Curves';

interface Figures {
  mean: number;
  p95: number;
  max: number;
}
interface Line {
  what: string;
  name: string;
  before: string;
  after: string;
}
interface Props {
  older: { number: number };
  newer: { number: number };
  references: { before: string[]; after: string[]; alone: boolean } | null;
  settings: { setting: string; title: string; before: unknown; after: unknown }[];
  facts: { name: string; before: string; after: string }[];
  curves: { name: string; older: [number, number][]; newer: [number, number][] }[];
  color: Figures | null;
  frames: ({ id: string; name: string } & Figures)[];
  records: { added: Line[]; changed: (Line & { moved: Movement | null })[]; gone: Line[]; same: number } | null;
}
const said = (v: unknown): string => (v === null || v === undefined ? 'as it was' : valueText(v));
const LINES = 100;
const figure = (n: number): string => n.toFixed(2);

export function Difference({ older, newer, references, settings, facts, curves, color, frames, records }: Props) {
  const nothing = !differs({ references, settings, facts, curves, records, color });
  return (
    <section
      aria-label={`Version ${older.number} against version ${newer.number}`}
      className="mb-2 border border-line bg-sheet px-4 py-3"
    >
      <h3 className="mb-1 text-[15px]">
        Version {older.number} against version {newer.number}
      </h3>
      {nothing && <p className="text-soft">The files differ, but not in what they do.</p>}
      {references && (
        <p className="mb-2">
          {references.alone
            ? 'No setting was touched; they differ in what they refer to alone: '
            : 'They refer to something else: '}
          {references.before.join(', ') || 'nothing'} became {references.after.join(', ') || 'nothing'}.
        </p>
      )}
      {color && (
        <p className="mb-2">
          Color over the whole range: ΔE00 {figure(color.mean)} in the mean, {figure(color.p95)} for 95 %,{' '}
          {figure(color.max)} at most.
        </p>
      )}
      <Changes
        of="Setting"
        older={older}
        newer={newer}
        changes={settings.map((s) => ({ name: s.title, before: said(s.before), after: said(s.after) }))}
      />
      <Changes of="Fact of the file" older={older} newer={newer} changes={facts} />
      {records && <Records records={records} older={older} newer={newer} />}
      {curves.length > 0 && (
        <div className="mb-3 grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-4">
          {curves.map((channel) => (
            <CurveChart key={channel.name} {...channel} />
          ))}
        </div>
      )}
      {frames.length > 0 && <OnFrames frames={frames} />}
    </section>
  );
}

/** Whether anything beside the bytes is another; color that nobody could see does not count. */
function differs({
  references,
  settings,
  facts,
  curves,
  records,
  color,
}: Omit<Props, 'older' | 'newer' | 'frames'>): boolean {
  const lines = records ? records.added.length + records.changed.length + records.gone.length : 0;
  if (references || settings.length + facts.length + curves.length + lines > 0) return true;
  return color !== null && color.max >= 0.005;
}

interface Versions {
  older: { number: number };
  newer: { number: number };
}

interface ChangesProps extends Versions {
  of: string;
  changes: { name: string; before: string; after: string }[];
}

function Changes({ of, older, newer, changes }: ChangesProps) {
  if (!changes.length) return null;
  return (
    <table className="list mb-3">
      <Head title={of} older={older} newer={newer} />
      <tbody>
        {changes.map(({ name, before, after }) => (
          <tr key={name}>
            <td>{name}</td>
            <td className="[overflow-wrap:anywhere]">{before}</td>
            <td className="[overflow-wrap:anywhere]">{after}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Head({ title, older, newer }: Versions & { title: string }) {
  return (
    <thead>
      <tr>
        <th>{title}</th>
        <th>Version {older.number}</th>
        <th>Version {newer.number}</th>
      </tr>
    </thead>
  );
}

const GROUPS = [
  ['added', 'Added'],
  ['changed', 'Calibrated anew'],
  ['gone', 'Gone'],
] as const;

const WIDTH = 6000;
const HALF_DIAGONAL = Math.hypot(WIDTH, 4000) / 2;

/** In pixels of a picture that people have an idea of; what nobody could see is not told. */
function movementWords({ most, light }: Movement): string {
  const pixels = (most * HALF_DIAGONAL).toFixed(1);
  const ev = light.toFixed(2);
  const parts = [
    Number(pixels) > 0 && `places move by up to ${pixels} pixels of ${WIDTH.toLocaleString('en')}`,
    Number(ev) > 0 && `light changes by up to ${ev} EV`,
  ];
  return parts.filter(Boolean).join(', ') || 'no place and no light changes that one could see';
}

/** What became of the records of a lens database. */
function Records({ records, older, newer }: Versions & { records: NonNullable<Props['records']> }) {
  return (
    <>
      {GROUPS.filter(([group]) => records[group].length > 0).map(([group, title]) => (
        <table key={group} className="list mb-3">
          <Head title={`${title}, ${records[group].length.toLocaleString('en')}`} older={older} newer={newer} />
          <tbody>
            {records[group].slice(0, LINES).map((line: Line & { moved?: Movement | null }) => (
              <tr key={`${line.what} ${line.name}`}>
                <td className="[overflow-wrap:anywhere]">
                  {line.name} <span className="text-soft">{line.what}</span>
                </td>
                <td>{line.before}</td>
                <td>
                  {line.after}
                  {line.moved && <span className="block text-soft">{movementWords(line.moved)}</span>}
                </td>
              </tr>
            ))}
            {records[group].length > LINES && (
              <tr>
                <td colSpan={3} className="text-soft">
                  and {(records[group].length - LINES).toLocaleString('en')} more
                </td>
              </tr>
            )}
          </tbody>
        </table>
      ))}
      {records.same > 0 && (
        <p className="mb-2 text-soft">
          {records.same.toLocaleString('en')} {records.same === 1 ? 'record is' : 'records are'} the same.
        </p>
      )}
    </>
  );
}

function OnFrames({ frames }: Pick<Props, 'frames'>) {
  return (
    <table className="list">
      <thead>
        <tr>
          <th>On the frame</th>
          <th className="text-right">mean ΔE00</th>
          <th className="text-right">95 %</th>
          <th className="text-right">at most</th>
        </tr>
      </thead>
      <tbody>
        {frames.map(({ id, name, mean, p95, max }) => (
          <tr key={id}>
            <td>{name}</td>
            <td className="text-right">{figure(mean)}</td>
            <td className="text-right">{figure(p95)}</td>
            <td className="text-right">{figure(max)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
