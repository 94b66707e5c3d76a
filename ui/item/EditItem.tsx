'use client';
/** What an item is called and what is said of it. Another person's change meanwhile is merged, or both are shown to choose from. */
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export interface EditableItem {
  title: string;
  short_title: string;
  headings: string[];
  position: number;
  description: string;
  intention: string;
  creator: string;
  rights: string;
  web_statement: string;
  supplier: string;
  tags: string[];
  notes: string;
  cameras: string[];
  lenses: string[];
  origin: string;
  licence_id: string | null;
  strength_least: number;
  strength_usual: number;
  strength_most: number;
  scope: { input?: string | null; result?: string | null };
}
type Conflict = ProblemText & {
  who?: string;
  revision?: number;
  fields?: { field: string; base: unknown; mine: unknown; theirs: unknown }[];
};
interface Props {
  id: string;
  revision: number;
  item: EditableItem;
  licences: { id: string; name: string }[];
}

const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';
const words = (text: string): string[] =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean);
const text = (value: unknown): string => {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (Array.isArray(value)) return value.join(' / ') || 'nothing';
  if (typeof value === 'object') return Object.values(value).filter(Boolean).join(', ') || 'any';
  return String(value);
};

export function EditItem({ id, revision, item, licences }: Props) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [editableItem, setF] = useState(item);
  const [start, setStart] = useState({ revision, base: item as unknown as Record<string, unknown> });
  const [problem, setProblem] = useState<Conflict | null>(null);
  const [said, setSaid] = useState('');
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const [lists, setLists] = useState({
    headings: item.headings.join(' / '),
    tags: item.tags.join(', '),
    cameras: item.cameras.join(', '),
    lenses: item.lenses.join(', '),
  });
  const begin = () => {
    setF(item);
    setLists({
      headings: item.headings.join(' / '),
      tags: item.tags.join(', '),
      cameras: item.cameras.join(', '),
      lenses: item.lenses.join(', '),
    });
    setStart({ revision, base: item as unknown as Record<string, unknown> });
    setProblem(null);
    setTheirs(new Set());
    setOpen(true);
  };
  const set = (k: keyof EditableItem) => (e: { target: { value: string } }) =>
    setF({ ...editableItem, [k]: e.target.value });
  const num = (k: keyof EditableItem) => (e: { target: { value: string } }) =>
    setF({ ...editableItem, [k]: Number(e.target.value) || 0 });
  const list = (k: keyof typeof lists) => ({
    value: lists[k],
    onChange: (e: { target: { value: string } }) => setLists({ ...lists, [k]: e.target.value }),
  });
  const fixed = editableItem.strength_least === editableItem.strength_most;
  const now = (): Record<string, unknown> => ({
    ...editableItem,
    headings: lists.headings
      .split('/')
      .map((t) => t.trim())
      .filter(Boolean),
    tags: words(lists.tags),
    cameras: words(lists.cameras),
    lenses: words(lists.lenses),
  });
  const save = async () => {
    setBusy(true);
    try {
      const all = now();
      const seen = problem?.fields
        ? {
            revision: problem.revision!,
            base: { ...start.base, ...Object.fromEntries(problem.fields.map((c) => [c.field, c.theirs])) },
          }
        : start;
      for (const c of problem?.fields ?? []) if (theirs.has(c.field)) all[c.field] = c.theirs;
      // only what this person changed is sent, so that nothing else of the item is written over
      const mine = Object.fromEntries(
        Object.entries(all).filter(
          ([key, value]) =>
            JSON.stringify(value) !== JSON.stringify(seen.base[key]) ||
            (problem?.fields ?? []).some((c) => c.field === key),
        ),
      );
      const r = await call<{ merged: string[]; who: string }>(`/api/items/${id}`, 'PATCH', {
        revision: seen.revision,
        base: seen.base,
        mine,
      });
      setSaid(r.merged.length ? `Kept, together with what ${r.who || 'someone else'} changed meanwhile.` : '');
      setOpen(false);
      setProblem(null);
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(false);
  };
  return (
    <>
      <button className="button" onClick={begin}>
        Edit
      </button>
      {said && (
        <span role="status" className="text-soft">
          {said}
        </span>
      )}
      <Dialog.Root
        open={open}
        onOpenChange={(open) => {
          if (!open) setOpen(false);
        }}
      >
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed left-1/2 top-[5vh] z-50 max-h-[90vh] w-[820px] max-w-[94vw] -translate-x-1/2 overflow-auto border border-line bg-paper p-4"
            style={{ boxShadow: 'var(--shade)' }}
          >
            <Dialog.Title className="mb-2 text-[19px]">Edit the item</Dialog.Title>
            <form
              onSubmit={(event) => {
                event.preventDefault();
                void save();
              }}
            >
              <div className="mb-3 grid grid-cols-4 gap-3">
                <label className={`${label} col-span-2`}>
                  Title
                  <input
                    className={control}
                    value={editableItem.title}
                    onChange={set('title')}
                    required
                    maxLength={200}
                  />
                </label>
                <label className={label}>
                  Short title
                  <input
                    className={control}
                    value={editableItem.short_title}
                    onChange={set('short_title')}
                    maxLength={60}
                  />
                </label>
                <label className={label}>
                  Position number
                  <input
                    className={control}
                    type="number"
                    min={0}
                    value={editableItem.position}
                    onChange={num('position')}
                  />
                </label>
                <label className={`${label} col-span-2`}>
                  Headings, from the outermost, with /<input className={control} {...list('headings')} />
                </label>
                <label className={`${label} col-span-2`}>
                  Tags, with commas
                  <input className={control} {...list('tags')} />
                </label>
                <label className={`${label} col-span-4`}>
                  Description
                  <textarea
                    className={`${control} !h-[58px] py-1.5`}
                    value={editableItem.description}
                    onChange={set('description')}
                    maxLength={4000}
                  />
                </label>
                <label className={`${label} col-span-4`}>
                  What it is meant to do, to be held against what it does
                  <input
                    className={control}
                    value={editableItem.intention}
                    onChange={set('intention')}
                    maxLength={1000}
                  />
                </label>
                <label className={`${label} col-span-2`}>
                  Cameras, with commas; none for any
                  <input className={control} {...list('cameras')} />
                </label>
                <label className={label}>
                  Works on
                  <select
                    className={control}
                    value={editableItem.scope.input ?? ''}
                    onChange={(e) =>
                      setF({ ...editableItem, scope: { ...editableItem.scope, input: e.target.value || null } })
                    }
                  >
                    <option value="">any input</option>
                    <option>camera data</option>
                    <option>rendered SDR</option>
                    <option>rendered HDR</option>
                  </select>
                </label>
                <label className={label}>
                  Gives
                  <select
                    className={control}
                    value={editableItem.scope.result ?? ''}
                    onChange={(e) =>
                      setF({ ...editableItem, scope: { ...editableItem.scope, result: e.target.value || null } })
                    }
                  >
                    <option value="">color or monochrome</option>
                    <option>color</option>
                    <option>monochrome</option>
                  </select>
                </label>
                <label className={`${label} col-span-2`}>
                  Lenses, with commas
                  <input className={control} {...list('lenses')} />
                </label>
                <label className={label}>
                  Origin
                  <select className={control} value={editableItem.origin} onChange={set('origin')}>
                    <option>house</option>
                    <option>bought</option>
                    <option>measured</option>
                    <option>maker-like</option>
                  </select>
                </label>
                <label className={label}>
                  Licence
                  <select
                    className={control}
                    value={editableItem.licence_id ?? ''}
                    onChange={(e) => setF({ ...editableItem, licence_id: e.target.value || null })}
                  >
                    <option value="">none noted</option>
                    {licences.map((l) => (
                      <option key={l.id} value={l.id}>
                        {l.name}
                      </option>
                    ))}
                  </select>
                </label>
                <label className={label}>
                  Supplier
                  <input className={control} value={editableItem.supplier} onChange={set('supplier')} />
                </label>
                <label className={label}>
                  Creator
                  <input className={control} value={editableItem.creator} onChange={set('creator')} />
                </label>
                <label className={label}>
                  Rights
                  <input className={control} value={editableItem.rights} onChange={set('rights')} />
                </label>
                <label className={label}>
                  Web statement
                  <input className={control} value={editableItem.web_statement} onChange={set('web_statement')} />
                </label>
                <label className="flex items-center gap-2 self-end pb-1.5">
                  <input
                    type="checkbox"
                    checked={!fixed}
                    onChange={(event) =>
                      setF({
                        ...editableItem,
                        ...(event.target.checked
                          ? { strength_least: 0, strength_most: 150 }
                          : { strength_least: 100, strength_usual: 100, strength_most: 100 }),
                      })
                    }
                  />
                  Takes a strength
                </label>
                {(['least', 'usual', 'most'] as const).map((w) => (
                  <label key={w} className={label}>
                    {w.charAt(0).toUpperCase() + w.slice(1)} strength, %
                    <input
                      className={control}
                      type="number"
                      disabled={fixed}
                      min={w === 'most' ? 1 : 0}
                      max={400}
                      value={editableItem[`strength_${w}`]}
                      onChange={num(`strength_${w}`)}
                    />
                  </label>
                ))}
                <label className={`${label} col-span-4`}>
                  Notes
                  <textarea
                    className={`${control} !h-[58px] py-1.5`}
                    value={editableItem.notes}
                    onChange={set('notes')}
                    maxLength={8000}
                  />
                </label>
              </div>
              <Notice problem={problem} className="mb-3" />
              {problem?.fields?.map((c) => (
                <fieldset key={c.field} className="mb-2 border-t border-line pt-2">
                  <legend className="text-[12px] text-soft">{c.field.replace('_', ' ')}</legend>
                  <label className="mr-6">
                    <input
                      type="radio"
                      name={`merge-${c.field}`}
                      checked={!theirs.has(c.field)}
                      onChange={() => {
                        const n = new Set(theirs);
                        n.delete(c.field);
                        setTheirs(n);
                      }}
                    />{' '}
                    mine: <b className="font-medium">{text(c.mine)}</b>
                  </label>
                  <label>
                    <input
                      type="radio"
                      name={`merge-${c.field}`}
                      checked={theirs.has(c.field)}
                      onChange={() => setTheirs(new Set([...theirs, c.field]))}
                    />{' '}
                    theirs: <b className="font-medium">{text(c.theirs)}</b>
                  </label>
                </fieldset>
              ))}
              <div className="flex justify-end gap-2">
                <Dialog.Close className="button quiet" type="button">
                  Leave it
                </Dialog.Close>
                <button className="button main" disabled={busy}>
                  {problem?.fields ? 'Keep what is chosen' : 'Keep'}
                </button>
              </div>
            </form>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}
