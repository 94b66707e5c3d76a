'use client';
/** What would change for the items that are held, and the proposal, on which the lead decides. */
import { useState } from 'react';
import Link from 'next/link';
import type { AnswerOf } from '@/core/api';
import { settingTitle } from '@/core/preset/settings';
import type { Descriptor } from '@/core/editor/descriptor';
import { useAction } from '../kit/action';
import { send } from '../kit/call';
import { Notice } from '../kit/Notice';
import { counted } from '../kit/words';
import { toPropose } from './model/draft';

interface Props {
  descriptor: Descriptor;
  isKnown: boolean;
  onProposed: () => void;
}
type Effect = AnswerOf<'POST /api/editors/effect'>;

export function Propose({ descriptor, isKnown, onProposed }: Props) {
  const action = useAction();
  const [effect, setEffect] = useState<{ of: Descriptor; is: Effect } | null>(null);
  const seen = effect?.of === descriptor ? effect.is : null;
  const look = () =>
    action.run(async () =>
      setEffect({ of: descriptor, is: await send('POST /api/editors/effect', toPropose(descriptor)) }),
    );
  const propose = () =>
    action.run(async () => {
      await send('POST /api/editors', toPropose(descriptor));
      onProposed();
    });
  return (
    <>
      {isKnown && !seen && (
        <p className="mb-2 text-soft">See first what would change for the presets that the library holds.</p>
      )}
      {seen && <EffectOnItems effect={seen} />}
      <Notice problem={action.problem} className="mb-2 max-w-[760px]" />
      <p className="flex gap-2">
        {isKnown && (
          <button className="button" disabled={action.busy} onClick={() => void look()}>
            What would change
          </button>
        )}
        <button className="button main" disabled={action.busy || (isKnown && !seen)} onClick={() => void propose()}>
          Propose {descriptor.title}
        </button>
        <a
          className="button"
          download={`${descriptor.editor}-${descriptor.version}.json`}
          href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(descriptor, null, 2))}`}
        >
          As a file
        </a>
      </p>
    </>
  );
}

const titles = (ids: readonly string[]): string => ids.map(settingTitle).join(', ');

function EffectOnItems({ effect: { held, items } }: { effect: Effect }) {
  if (!items.length)
    return (
      <p className="mb-2">
        {held
          ? `Nothing changes for the ${counted(held, 'preset')} that are held.`
          : 'The library holds no preset of it.'}
      </p>
    );
  return (
    <>
      <p className="mb-1">
        {items.length} of {counted(held, 'preset')} would read otherwise.
      </p>
      <table className="list mb-3" aria-label="What would change">
        <thead>
          <tr>
            <th>Item</th>
            <th>Read besides</th>
            <th>Read otherwise</th>
            <th>Not read any more</th>
            <th className="text-right">Unknown properties</th>
          </tr>
        </thead>
        <tbody>
          {items.map((item) => (
            <tr key={item.versionId}>
              <td className="[overflow-wrap:anywhere]">
                <Link className="font-serif text-[15px] hover:underline" href={`/items/${item.itemId}`}>
                  {item.title}
                </Link>
                {item.fault && <span className="block text-[12px] text-madder">{item.fault}</span>}
              </td>
              <td>{titles(item.gained)}</td>
              <td>{titles(item.changed)}</td>
              <td>{titles(item.lost)}</td>
              <td className="text-right">{item.unknown.join(' → ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
