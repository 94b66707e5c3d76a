/** What differs between two versions: settings, other facts, curves, and color on frames. */
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
  records: { added: Line[]; changed: Line[]; gone: Line[]; same: number } | null;
}
const said = (v: unknown): string => (v === null || v === undefined ? 'as it was' : valueText(v));
const LINES = 100;
const figure = (n: number): string => n.toFixed(2);

export function Difference({ older, newer, references, settings, facts, curves, color, frames, records }: Props) {
  const nothing =
    !references &&
    !settings.length &&
    !facts.length &&
    !curves.length &&
    !(records && records.added.length + records.changed.length + records.gone.length) &&
    (!color || color.max < 0.005);
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
      {settings.length > 0 && (
        <table className="list mb-3">
          <thead>
            <tr>
              <th>Setting</th>
              <th>Version {older.number}</th>
              <th>Version {newer.number}</th>
            </tr>
          </thead>
          <tbody>
            {settings.map((s) => (
              <tr key={s.setting}>
                <td>{s.title}</td>
                <td className="[overflow-wrap:anywhere]">{said(s.before)}</td>
                <td className="[overflow-wrap:anywhere]">{said(s.after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {facts.length > 0 && (
        <table className="list mb-3">
          <thead>
            <tr>
              <th>Fact of the file</th>
              <th>Version {older.number}</th>
              <th>Version {newer.number}</th>
            </tr>
          </thead>
          <tbody>
            {facts.map((f) => (
              <tr key={f.name}>
                <td>{f.name}</td>
                <td className="[overflow-wrap:anywhere]">{f.before}</td>
                <td className="[overflow-wrap:anywhere]">{f.after}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {records &&
        (
          [
            ['added', 'Added'],
            ['changed', 'Calibrated anew'],
            ['gone', 'Gone'],
          ] as const
        ).map(
          ([k, title]) =>
            records[k].length > 0 && (
              <table key={k} className="list mb-3">
                <thead>
                  <tr>
                    <th>
                      {title}, {records[k].length.toLocaleString('en')}
                    </th>
                    <th>Version {older.number}</th>
                    <th>Version {newer.number}</th>
                  </tr>
                </thead>
                <tbody>
                  {records[k].slice(0, LINES).map((line) => (
                    <tr key={`${line.what} ${line.name}`}>
                      <td className="[overflow-wrap:anywhere]">
                        {line.name} <span className="text-soft">{line.what}</span>
                      </td>
                      <td>{line.before}</td>
                      <td>{line.after}</td>
                    </tr>
                  ))}
                  {records[k].length > LINES && (
                    <tr>
                      <td colSpan={3} className="text-soft">
                        and {(records[k].length - LINES).toLocaleString('en')} more
                      </td>
                    </tr>
                  )}
                </tbody>
              </table>
            ),
        )}
      {records && records.same > 0 && (
        <p className="mb-2 text-soft">
          {records.same.toLocaleString('en')} {records.same === 1 ? 'record is' : 'records are'} the same.
        </p>
      )}
      {curves.length > 0 && (
        <div className="mb-3 grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-4">
          {curves.map((c) => (
            <CurveChart key={c.name} {...c} />
          ))}
        </div>
      )}
      {frames.length > 0 && (
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
            {frames.map((f) => (
              <tr key={f.id}>
                <td>{f.name}</td>
                <td className="text-right">{figure(f.mean)}</td>
                <td className="text-right">{figure(f.p95)}</td>
                <td className="text-right">{figure(f.max)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
