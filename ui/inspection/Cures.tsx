'use client';
/** What is to be done before items fit a target: one line and one button for all that need the same. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { checkWords, type CureOfMany } from '@/core/editor/checklist';
import { useConvert } from '../conversions/convert-action';
import { EncodingOfMany } from '../item/EncodingOfMany';
import { useAction, type Action } from '../kit/action';
import { useApprove } from '../kit/approve';
import { call } from '../kit/call';
import { NameDialog } from '../kit/NameDialog';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { counted } from '../kit/words';
import { inspectionAddress } from './model/item';

export interface MayCure {
  edit: boolean;
  approve: boolean;
  convert: boolean;
}
interface Props {
  cures: readonly CureOfMany[];
  /** of the target */ target: { key: string; title: string };
  /** all that are inspected */ items: readonly string[];
  may: MayCure;
}
type Thing = CureOfMany['things'][number];
type Asking = { what: 'encodings'; things: Thing[] } | { what: 'name'; thing: Thing } | null;

/** Changes what is said of items, all to the same; it can be taken back. */
function useSet(action: Action) {
  const tell = useToast();
  return (items: readonly string[], set: Record<string, unknown>, words: string) =>
    action.runAndRefresh(async () => {
      const { changed, undo } = await call('POST /api/items/bulk', { body: { items: [...items], set } });
      tell({
        words: `${words} of ${counted(changed, 'item')} is changed.`,
        ...(undo.first ? { undo: () => call('POST /api/items/bulk/undo', { body: undo }) } : {}),
      });
    });
}

const openScope = { scope: { input: null, result: null }, cameras: [] };

export function Cures({ cures, target, items, may }: Props) {
  const action = useAction();
  const [asking, setAsking] = useState<Asking>(null);
  if (!cures.length) return null;
  const close = () => setAsking(null);
  return (
    <>
      <Notice problem={action.problem} className="mb-2" />
      <ul aria-label={`What can be done for ${target.title}`} className="mb-4 max-w-[860px]">
        {cures.map((many) => (
          <li
            key={`${many.check} ${JSON.stringify(many.cure)}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-1.5"
          >
            <span className="w-[110px] font-medium">{checkWords[many.check]}</span>
            <span className="min-w-0 flex-1 text-soft [overflow-wrap:anywhere]">{titlesOf(many.things)}</span>
            <Cure many={many} target={target} items={items} may={may} action={action} onAsk={setAsking} />
          </li>
        ))}
      </ul>
      {asking?.what === 'encodings' && <EncodingOfMany looks={asking.things} onClose={close} />}
      {asking?.what === 'name' && <Rename thing={asking.thing} target={target.title} onClose={close} />}
    </>
  );
}

const MOST_NAMED = 4;
function titlesOf(things: readonly Thing[]): string {
  const named = things.slice(0, MOST_NAMED).map(({ title }) => title);
  const more = things.length - named.length;
  return `${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

interface CureProps extends Omit<Props, 'cures'> {
  many: CureOfMany;
  action: Action;
  onAsk: (asking: Asking) => void;
}

function Cure({ many: { cure, things }, target, items, may, action, onAsk }: CureProps) {
  const router = useRouter();
  const { convert } = useConvert(action);
  const approve = useApprove(action);
  const set = useSet(action);
  const ids = things.map(({ id }) => id);
  const button = (words: string, onClick: () => void) => (
    <button className="button" disabled={action.busy} onClick={onClick}>
      {words}
    </button>
  );
  switch (cure.does) {
    case 'convert':
      return may.convert ? button(cure.words, () => convert({ items: ids, recipe: cure.recipe })) : null;
    case 'approve':
      return may.approve ? button(`Approve ${counted(ids.length, 'draft')}`, () => void approve(ids)) : null;
    case 'confirm-encoding':
      return may.edit
        ? button(`Say the encoding of ${counted(ids.length, 'look')}`, () => onAsk({ what: 'encodings', things }))
        : null;
    case 'open-scope':
      return may.edit
        ? button(`Open the scope of ${counted(ids.length, 'item')}`, () => void set(ids, openScope, 'The scope'))
        : null;
    case 'rename':
      return may.edit ? (
        <span className="flex flex-wrap gap-2">
          {things.slice(0, MOST_NAMED).map((thing) => (
            <button key={thing.id} className="button" onClick={() => onAsk({ what: 'name', thing })}>
              Rename {thing.title}
            </button>
          ))}
        </span>
      ) : null;
    case 'leave-out':
      return button(`Leave ${ids.length === 1 ? 'it' : `these ${ids.length}`} out`, () =>
        router.push(inspectionAddress({ items: items.filter((id) => !ids.includes(id)) }, target.key)),
      );
  }
}

function Rename({ thing, target, onClose }: { thing: Thing; target: string; onClose: () => void }) {
  const router = useRouter();
  return (
    <NameDialog
      title={`Rename ${thing.title}`}
      action="Rename"
      name={thing.title}
      noNote
      about={`The item has this title everywhere, at ${target} too.`}
      onClose={onClose}
      onSave={async (title) => {
        await call('POST /api/items/bulk', { body: { items: [thing.id], set: { title } } });
        onClose();
        router.refresh();
      }}
    />
  );
}
