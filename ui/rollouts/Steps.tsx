/** What a rollout does at one station, file by file, and what came of it. */
import type { ReactNode } from 'react';
import { fidelity } from '../kit/fidelity';
import { State } from '../kit/State';

export interface Step {
  id: string | number;
  path: string;
  title: string | null;
  number: number | null;
  editor_id: string;
  editor_version: string;
  do_what: string;
  decision: string;
  expect: unknown;
  lines: unknown;
  size: number;
  points: number | null;
  residual: Parameters<typeof fidelity>[0];
  /** of the table itself, against what it was made from */ table_error: Parameters<typeof fidelity>[0];
  note: string;
}
interface Outcome {
  state: string;
  reason: string;
}
interface Props<S extends Step> {
  steps: S[];
  stateOf: (step: S) => Outcome;
  /** of editors, by "editor version" */ titles: Map<string, string>;
  /** whether a file is further off than the studio takes */ isFar: (step: S) => boolean;
  /** what can be done about a step, below its state */ action?: (step: S) => ReactNode;
}

export function Steps<S extends Step>({ steps, stateOf, titles, isFar, action }: Props<S>) {
  return (
    <table className="list table-fixed">
      <colgroup>
        <col className="w-[190px]" />
        <col className="w-[120px]" />
        <col className="w-[76px]" />
        <col />
        <col className="w-[230px]" />
      </colgroup>
      <thead>
        <tr>
          <th>Item</th>
          <th>For</th>
          <th>Does</th>
          <th>File</th>
          <th>State</th>
        </tr>
      </thead>
      <tbody>
        {steps.map((step) => {
          const editor = `${step.editor_id} ${step.editor_version}`;
          return (
            <Row
              key={step.id}
              step={step}
              outcome={stateOf(step)}
              far={isFar(step)}
              editor={titles.get(editor) ?? editor}
            >
              {action?.(step)}
            </Row>
          );
        })}
      </tbody>
    </table>
  );
}

function deed(step: Step): string {
  if (step.do_what === 'remove') return 'take away';
  return step.expect ? 'replace' : 'write';
}

/** What the file carries: an item, the list that an editor keeps of its files, or nothing that has a name. */
function carries(step: Step): string {
  if (step.title) return step.title;
  return step.lines || step.decision === 'put' || step.do_what === 'remove' ? 'the list of files' : '–';
}

interface RowProps {
  step: Step;
  outcome: Outcome;
  far: boolean;
  editor: string;
  children: ReactNode;
}

function Row({ step, outcome, far, editor, children }: RowProps) {
  const idle = step.do_what === 'none';
  const shown = idle
    ? { state: step.decision, words: step.note }
    : { state: outcome.state, words: outcome.reason || step.note };
  return (
    <tr data-path={step.path} data-state={shown.state}>
      <td className="font-serif text-[15px] [overflow-wrap:anywhere]">
        {carries(step)}
        {step.number && <span className="font-sans text-[12px] text-soft"> v{step.number}</span>}
      </td>
      <td>{editor}</td>
      <td>{idle ? <span className="text-soft">nothing</span> : deed(step)}</td>
      <td className="text-[12px] [overflow-wrap:anywhere]">
        {step.path || <span className="text-soft">–</span>}
        {step.do_what === 'put' && (
          <span className="block text-soft">
            {(step.size / 1000).toFixed(0)} kB{step.points ? `, ${step.points} points` : ''}
            {fidelity(step.residual)}
            {step.table_error && `; as a table${fidelity(step.table_error)}`}
          </span>
        )}
        {far && <span className="block font-semibold text-madder">more than the studio takes</span>}
      </td>
      <td>
        <State of={shown.state} />
        <span className="block text-[12px] text-soft">{shown.words}</span>
        {children}
      </td>
    </tr>
  );
}
