'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

/** Title and description, with the other person's change told instead of overwritten. */
export function Describe({ id, revision, title, description }: { id: string; revision: number; title: string; description: string }) {
  const router = useRouter(), [open, setOpen] = useState(false), [problem, setProblem] = useState<ProblemText | null>(null);
  if (!open) return <button className="button" onClick={() => setOpen(true)}>Describe</button>;
  return (
    <form className="basis-full" onSubmit={(e) => { e.preventDefault(); const f = new FormData(e.currentTarget); void call(`/api/items/${id}`, 'PATCH', { revision, title: f.get('title'), description: f.get('description') }).then(() => { setOpen(false); setProblem(null); router.refresh(); }).catch((x: unknown) => setProblem(problemOf(x))); }}>
      <Notice problem={problem} className="mb-2" />
      <div className="flex flex-wrap items-end gap-2">
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">Title<input name="title" className="field w-[240px] text-[13.5px]" defaultValue={title} required maxLength={200} /></label>
        <label className="flex grow flex-col gap-0.5 text-[12px] text-soft">Description<input name="description" className="field text-[13.5px]" defaultValue={description} maxLength={4000} /></label>
        <button className="button main">Keep</button><button type="button" className="button quiet" onClick={() => setOpen(false)}>Leave it</button>
      </div>
    </form>
  );
}
