'use client';
/** What was read, a row a reading; those that are ticked become one look. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { agreementWords, type ReadingFigures } from '@/core/editor-chart/figures';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';
import { steadiness } from './model/words';

export interface Reading {
  id: string;
  fileName: string;
  figures: ReadingFigures;
  person: string;
  at: string;
}
interface Shelf {
  id: string;
  name: string;
}
interface Props {
  chart: string;
  /** what is switched on */ title: string;
  readings: readonly Reading[];
  /** to choose from, where no preset says where the look stands */ shelves: readonly Shelf[];
  besidePreset: boolean;
  may: boolean;
}

export function Readings({ chart, title, readings, shelves, besidePreset, may }: Props) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { busy, problem, runAndRefresh } = useAction();
  const chosen = readings.filter(({ id }) => !left.has(id));
  const tick = (id: string) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
  };
  return (
    <>
      <table className="list mb-4">
        <thead>
          <tr>
            <th>
              <span className="sr-only">Taken</span>
            </th>
            <th>Picture</th>
            <th>Steadiness</th>
            <th>The table itself</th>
            <th>Our rendering of the preset</th>
            <th>Read</th>
            {may && <th />}
          </tr>
        </thead>
        <tbody>
          {readings.map((one) => (
            <tr key={one.id}>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Take ${one.fileName}`}
                  checked={!left.has(one.id)}
                  onChange={() => tick(one.id)}
                />
              </td>
              <td className="[overflow-wrap:anywhere]">
                {one.fileName}
                <Remarks figures={one.figures} />
              </td>
              <td>{steadiness(one.figures)}</td>
              <td>{one.figures.error ? agreementWords(one.figures.error) : 'not told'}</td>
              <td>{one.figures.agreement ? agreementWords(one.figures.agreement) : 'not compared'}</td>
              <td className="whitespace-nowrap text-soft">
                <Ago at={one.at} />, {one.person}
              </td>
              {may && (
                <td className="text-right">
                  <button
                    className="button quiet"
                    disabled={busy}
                    aria-label={`Take ${one.fileName} off`}
                    onClick={() => void runAndRefresh(() => call('DELETE /api/chart-readings/:id', { id: one.id }))}
                  >
                    Take off
                  </button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <Notice problem={problem} className="mb-3" />
      {may && (
        <MakeLook
          chart={chart}
          title={title}
          readings={chosen.map(({ id }) => id)}
          shelves={besidePreset ? [] : shelves}
        />
      )}
    </>
  );
}

/** What was repaired, and what to know of the reading. */
function Remarks({ figures: { repaired, warnings, validFor } }: { figures: ReadingFigures }) {
  return (
    <span className="block text-[12px] text-soft">
      valid for {validFor}
      {repaired.map((what) => (
        <span key={what} className="block">
          {what}
        </span>
      ))}
      {warnings.map(({ code, message }) => (
        <span key={code} className="block text-ochre">
          {message}
        </span>
      ))}
    </span>
  );
}

interface Making {
  chart: string;
  title: string;
  readings: readonly string[];
  shelves: readonly Shelf[];
}

function MakeLook({ chart, title: first, readings, shelves }: Making) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const [title, setTitle] = useState(first);
  const [shelf, setShelf] = useState(shelves[0]?.id ?? null);
  const make = () =>
    run(async () => {
      const body = { title, readings: [...readings], shelf };
      const made = await call('POST /api/editor-charts/:id/look', { id: chart, body });
      router.push(`/items/${made.itemId}`);
    });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      aria-label="Make a look of the readings"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <label className="flex flex-col gap-0.5 text-[12px] text-soft">
        Title of the look
        <input
          className="field w-[260px] text-[13.5px] text-ink"
          value={title}
          onChange={(event) => setTitle(event.target.value)}
        />
      </label>
      {shelves.length > 0 && (
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">
          On the shelf
          <select
            className="field text-[13.5px] text-ink"
            value={shelf ?? ''}
            onChange={(event) => setShelf(event.target.value)}
          >
            {shelves.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <button className="button main" disabled={busy || !readings.length || !title.trim()}>
        {readings.length > 1 ? `Make the look of ${counted(readings.length, 'reading')}, averaged` : 'Make the look'}
      </button>
      <Notice problem={problem} className="w-full" />
    </form>
  );
}
