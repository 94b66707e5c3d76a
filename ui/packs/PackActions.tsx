'use client';
/** What is done with a pack as a whole. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useConvert } from '../conversions/convert-action';
import { inspectionAddress } from '../inspection/model/item';
import { useAction } from '../kit/action';
import { useApprove } from '../kit/approve';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { TakeAwayEverywhere } from '../rollouts/TakeAwayEverywhere';
import { planAddress } from '../shelves/model/selection';
import { ChangePack, type PackSaid } from './ChangePack';

interface Props {
  pack: PackSaid;
  /** that are not in the archive */ items: string[];
  /** of these, those that are drafts */ drafts: string[];
  /** null where nothing of it can be laid there */ bench: string | null;
  /** the versions that can be rolled out */ rollOut: string[];
  licences: { id: string; name: string }[];
  may: { edit: boolean; convert: boolean; approve: boolean; archive: boolean; rollOut: boolean };
}

export function PackActions({ pack, items, drafts, bench, rollOut, licences, may }: Props) {
  const action = useAction();
  const tell = useToast();
  const router = useRouter();
  const [changing, setChanging] = useState(false);
  const approve = useApprove(action);
  const { convert } = useConvert(action);
  const archive = async () => {
    const put = (archived: boolean) => call('POST /api/items/archive', { body: { items, archived } });
    if (!(await action.run(() => put(true)))) return;
    tell({ words: `${counted(items.length, 'item')} of ${pack.name} put into the archive.`, undo: () => put(false) });
    router.refresh();
  };
  return (
    <>
      <Notice problem={action.problem} className="basis-full" />
      {may.edit && (
        <button className="button" onClick={() => setChanging(true)}>
          Change
        </button>
      )}
      <Link className="button" href={`/shelves?${new URLSearchParams({ pack: pack.name })}`}>
        On the shelves
      </Link>
      {bench && (
        <Link className="button" href={bench}>
          On the bench
        </Link>
      )}
      {items.length > 0 && (
        <Link className="button" prefetch={false} href={inspectionAddress({ pack: pack.id })}>
          Inspect all
        </Link>
      )}
      {may.convert && items.length > 0 && (
        <button className="button" disabled={action.busy} onClick={() => convert({ pack: pack.id })}>
          Convert all
        </button>
      )}
      {may.rollOut && items.length > 0 && (
        <TakeAwayEverywhere items={items} title={`Take ${pack.name} away`} action={action} />
      )}
      {may.archive && items.length > 0 && (
        <button className="button danger" disabled={action.busy} onClick={() => void archive()}>
          Archive all
        </button>
      )}
      {may.approve && drafts.length > 0 && (
        <button className="button" disabled={action.busy} onClick={() => void approve(drafts)}>
          Approve {counted(drafts.length, 'draft')}
        </button>
      )}
      {may.rollOut && rollOut.length > 0 && (
        <Link className="button main" href={planAddress(rollOut)}>
          Roll out {rollOut.length < items.length ? `${rollOut.length} approved` : 'all'}
        </Link>
      )}
      {changing && <ChangePack pack={pack} licences={licences} onClose={() => setChanging(false)} />}
    </>
  );
}
