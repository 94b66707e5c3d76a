'use client';
/** The licences and read-me files of an arrival, to be read beside the fields that they fill. */
import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import { problemOf } from '../kit/call';
import { Notice } from '../kit/Notice';
import { addressOfPaper, fetchPaper, type Paper } from './model/paper';

interface Props {
  arrival: string;
  papers: readonly Paper[];
  /** the one that is read */ chosen: number;
  onChoose: (paper: number) => void;
}

export function Papers({ arrival, papers, chosen, onChoose }: Props) {
  const label = useId();
  const [first] = papers;
  const paper = papers.find(({ id }) => id === chosen) ?? first;
  if (!paper) return null;
  return (
    <section aria-labelledby={label} className="flex min-w-0 flex-col gap-1 text-[12px] text-soft">
      <div className="flex items-baseline gap-2">
        <span id={label}>Papers</span>
        <select
          aria-label="Paper to read"
          className="field h-[26px] min-w-0 flex-1 text-ink"
          value={paper.id}
          onChange={(event) => onChoose(Number(event.target.value))}
        >
          {papers.map(({ id, path }) => (
            <option key={id} value={id}>
              {path}
            </option>
          ))}
        </select>
        <a className="underline" href={addressOfPaper(arrival, paper.id, true)}>
          Save
        </a>
      </div>
      <PaperText key={paper.id} arrival={arrival} paper={paper} />
    </section>
  );
}

function PaperText({ arrival, paper }: { arrival: string; paper: Paper }) {
  const { data, error } = useQuery({
    queryKey: ['paper', arrival, paper.id],
    queryFn: ({ signal }) => fetchPaper(arrival, paper, signal),
    staleTime: Infinity,
    retry: false,
  });
  if (error) return <Notice problem={problemOf(error)} />;
  const text = data ?? 'Reading.';
  return (
    <pre
      tabIndex={0}
      aria-label={`Text of ${paper.path}`}
      className="h-[176px] overflow-auto whitespace-pre-wrap border border-line bg-paper p-2 font-mono text-[12px] text-ink [overflow-wrap:anywhere]"
    >
      {text}
    </pre>
  );
}
