'use client';
/** Many items changed at once: titles, headings, tags, scope, licence; each title and each file name that results is shown first. */
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

interface Row {
  id: string;
  before: string;
  after: string;
  changes: string[];
  files: { editor: string; name: string; altered: boolean }[];
  problem: string | null;
}
const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';
const words = (text: string): string[] =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean);

export function BulkEdit({
  items,
  licences,
  onDone,
  onClose,
}: {
  items: string[];
  licences: { id: string; name: string }[];
  onDone: (said: string) => void;
  onClose: () => void;
}) {
  const [f, setF] = useState({
    find: '',
    replace: '',
    pattern: '',
    headings: '',
    addTags: '',
    removeTags: '',
    input: '',
    result: '',
    cameras: '',
    licence: '',
    description: '',
  });
  const [rows, setRows] = useState<Row[]>([]);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const field = (k: keyof typeof f) => ({
    value: f[k],
    onChange: (e: { target: { value: string } }) => setF({ ...f, [k]: e.target.value }),
  });
  const scope =
    f.input || f.result
      ? {
          scope: {
            input: f.input === 'any' || !f.input ? null : f.input,
            result: f.result === 'any' || !f.result ? null : f.result,
          },
        }
      : {};
  const set = {
    ...(f.headings.trim()
      ? {
          headings: f.headings
            .split('/')
            .map((t) => t.trim())
            .filter(Boolean),
        }
      : {}),
    ...(f.cameras.trim() ? { cameras: f.cameras.trim() === 'any' ? [] : words(f.cameras) } : {}),
    ...(f.licence ? { licence_id: f.licence === 'none' ? null : f.licence } : {}),
    ...(f.description.trim() ? { description: f.description.trim() } : {}),
    ...scope,
  };
  const edit = {
    items,
    ...(f.find || f.pattern ? { title: { find: f.find, replace: f.replace, pattern: f.pattern } } : {}),
    ...(Object.keys(set).length ? { set } : {}),
    addTags: words(f.addTags),
    removeTags: words(f.removeTags),
  };
  const key = JSON.stringify(edit);
  useEffect(() => {
    let live = true;
    const timer = setTimeout(() => {
      void call<{ rows: Row[] }>('/api/items/bulk?preview', 'POST', JSON.parse(key))
        .then((r) => {
          if (live) {
            setRows(r.rows);
            setProblem(null);
          }
        })
        .catch((error: unknown) => {
          if (live) setProblem(problemOf(error));
        });
    }, 150);
    return () => {
      live = false;
      clearTimeout(timer);
    };
  }, [key]);
  const asks = Object.keys(set).length > 0 || !!edit.title || edit.addTags.length > 0 || edit.removeTags.length > 0;
  const bad = rows.filter((r) => r.problem).length;
  const apply = async () => {
    setBusy(true);
    try {
      const { changed } = await call<{ changed: number }>('/api/items/bulk', 'POST', edit);
      onDone(`${changed} ${changed === 1 ? 'item' : 'items'} changed`);
    } catch (error) {
      setProblem(problemOf(error));
      setBusy(false);
    }
  };
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[6vh] z-50 flex max-h-[88vh] w-[980px] max-w-[94vw] -translate-x-1/2 flex-col border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-2 text-[19px]">
            Change {items.length} {items.length === 1 ? 'item' : 'items'}
          </Dialog.Title>
          <div className="mb-3 grid grid-cols-4 gap-3">
            <label className={label}>
              In titles, replace
              <input className={control} {...field('find')} />
            </label>
            <label className={label}>
              by
              <input className={control} {...field('replace')} />
            </label>
            <label className={`${label} col-span-2`}>
              Title as a pattern, with {'{title} {n} {camera} {supplier} {heading}'}
              <input className={control} placeholder="{title}" {...field('pattern')} />
            </label>
            <label className={`${label} col-span-2`}>
              Headings, from the outermost
              <input className={control} placeholder="as they are" {...field('headings')} />
            </label>
            <label className={label}>
              Add tags
              <input className={control} placeholder="costume, tungsten" {...field('addTags')} />
            </label>
            <label className={label}>
              Take tags off
              <input className={control} {...field('removeTags')} />
            </label>
            <label className={label}>
              Works on
              <select className={control} {...field('input')}>
                <option value="">as it is</option>
                <option value="any">any input</option>
                <option>camera data</option>
                <option>rendered SDR</option>
                <option>rendered HDR</option>
              </select>
            </label>
            <label className={label}>
              Gives
              <select className={control} {...field('result')}>
                <option value="">as it is</option>
                <option value="any">color or monochrome</option>
                <option>color</option>
                <option>monochrome</option>
              </select>
            </label>
            <label className={label}>
              Cameras
              <input className={control} placeholder="as they are; “any” for all" {...field('cameras')} />
            </label>
            <label className={label}>
              Licence
              <select className={control} {...field('licence')}>
                <option value="">as it is</option>
                <option value="none">none noted</option>
                {licences.map((l) => (
                  <option key={l.id} value={l.id}>
                    {l.name}
                  </option>
                ))}
              </select>
            </label>
            <label className={`${label} col-span-4`}>
              Description
              <input className={control} placeholder="as it is" {...field('description')} />
            </label>
          </div>
          <div className="min-h-[120px] overflow-auto border-t border-line">
            <table className="list" aria-label="What results">
              <thead>
                <tr>
                  <th>Title now</th>
                  <th>Title then</th>
                  <th>File names then</th>
                </tr>
              </thead>
              <tbody>
                {rows.slice(0, 200).map((row) => (
                  <tr key={row.id}>
                    <td className="[overflow-wrap:anywhere]">{row.before}</td>
                    <td className="[overflow-wrap:anywhere]">
                      {row.problem ? (
                        <span className="text-madder">{row.problem}</span>
                      ) : row.after === row.before ? (
                        <span className="text-soft">the same</span>
                      ) : (
                        <b className="font-medium">{row.after}</b>
                      )}
                      {row.changes.length > 0 && (
                        <span className="block text-[12px] text-soft">and other {row.changes.join(', ')}</span>
                      )}
                    </td>
                    <td className="text-[12px] [overflow-wrap:anywhere]">
                      {row.files.map((x) => (
                        <span key={x.editor} className="block">
                          <span className="text-soft">{x.editor}: </span>
                          {x.name}
                          {x.altered && <span className="text-ochre"> (fitted to what it takes)</span>}
                        </span>
                      ))}
                      {!row.files.length && <span className="text-soft">no editor takes it</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {rows.length > 200 && <p className="py-2 text-soft">and {rows.length - 200} more</p>}
          </div>
          <Notice problem={problem} className="mt-2" />
          <div className="mt-3 flex justify-end gap-2">
            <Dialog.Close className="button quiet">Leave it</Dialog.Close>
            <button className="button main" disabled={busy || !asks || bad > 0} onClick={() => void apply()}>
              Change {items.length} {items.length === 1 ? 'item' : 'items'}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
