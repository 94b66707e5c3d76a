'use client';
/** The plan: a row for each item, with what is carried and left, how far it will be off, and what came of it. */
import { useState } from 'react';
import type { Thresholds } from '@/core/conversion/outcome';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useHoped } from '../kit/hoped';
import { Notice } from '../kit/Notice';
import type { Row } from './model/row';
import { Otherwise } from './Otherwise';
import { PlanRow } from './PlanRow';

interface Props {
  id: string;
  rows: readonly Row[];
  within: Thresholds;
  /** rows can still be changed */ open: boolean;
}

export function Rows({ id, rows: said, within, open }: Props) {
  const action = useAction();
  const [rows, hope] = useHoped(said);
  const [otherwise, setOtherwise] = useState<Row | null>(null);
  const change = async (places: number[], body: { excluded?: boolean; title?: string }) => {
    const { excluded, title } = body;
    const hoped = { ...(excluded === undefined ? {} : { excluded }), ...(title ? { name: title } : {}) };
    hope(rows.map((row) => (places.includes(row.place) ? { ...row, ...hoped } : row)));
    const ask = () => call('PATCH /api/conversions/:id/rows', { id, body: { places, ...body } });
    if (!(await action.runAndRefresh(ask))) hope(said);
  };
  const takeable = rows.filter((row) => row.status !== 'made' && row.status !== 'refused');
  const taken = takeable.filter((row) => !row.excluded);
  return (
    <div className="min-w-0">
      <Notice problem={action.problem} className="mb-3" />
      <table className="list table-fixed" aria-label="The plan">
        <colgroup>
          <col className="w-[30px]" />
          <col className="w-[23%]" />
          <col className="w-[27%]" />
          <col className="w-[20%]" />
          <col className="w-[16%]" />
          <col />
        </colgroup>
        <thead>
          <tr>
            <th>
              {open && takeable.length > 1 ? (
                <input
                  type="checkbox"
                  aria-label="Make all"
                  checked={taken.length === takeable.length}
                  onChange={(event) =>
                    void change(
                      takeable.map((row) => row.place),
                      { excluded: !event.target.checked },
                    )
                  }
                />
              ) : (
                <span className="sr-only">Make</span>
              )}
            </th>
            <th>Source</th>
            <th>Becomes</th>
            <th>Settings</th>
            <th>Error, ΔE00</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <PlanRow
              key={row.place}
              row={row}
              within={within}
              open={open && row.status !== 'made'}
              onTake={(on) => void change([row.place], { excluded: !on })}
              onName={(title) => void change([row.place], { title })}
              onOtherwise={() => setOtherwise(row)}
            />
          ))}
        </tbody>
      </table>
      {otherwise && <Otherwise id={id} row={otherwise} onClose={() => setOtherwise(null)} />}
    </div>
  );
}
