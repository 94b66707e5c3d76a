'use client';
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import '../kit/nonce';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

/** Adds a workstation and shows the one-time code for its agent. */
export function Enrol({ editors }: { editors: { id: string; title: string }[] }) {
  const router = useRouter();
  const [code, setCode] = useState<string | null>(null);
  const [system, setSystem] = useState('macos');
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const add = async (formData: FormData) => {
    setProblem(null);
    try {
      const r = await call<{ code: string }>('/api/stations', 'POST', {
        name: formData.get('name'),
        system: formData.get('system'),
        person: formData.get('person'),
        editors: formData.getAll('editors'),
      });
      setSystem(String(formData.get('system')));
      setCode(r.code);
      router.refresh();
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  return (
    <Dialog.Root
      onOpenChange={(open) => {
        if (!open) {
          setCode(null);
          setProblem(null);
        }
      }}
    >
      <Dialog.Trigger className="button">Add a station</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          className="fixed left-1/2 top-1/2 z-50 w-[440px] -translate-x-1/2 -translate-y-1/2 border border-line bg-paper p-6"
          style={{ boxShadow: 'var(--shade)' }}
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-3 font-serif text-[20px]">Add a station</Dialog.Title>
          <Notice problem={problem} className="mb-3" />
          {code ? (
            <>
              <p className="mb-2">The code holds once, for 30 minutes. At the station, run</p>
              <pre className="mb-4 overflow-auto bg-press p-3 font-mono text-[12px]">{`etagere-agent enrol --server ${location.origin} \\\n  --code ${code} --root ~ --system ${system} \\\n  --state ~/.etagere-agent`}</pre>
              <Dialog.Close className="button main">Done</Dialog.Close>
            </>
          ) : (
            <form
              className="flex flex-col gap-3"
              onSubmit={(event) => {
                event.preventDefault();
                void add(new FormData(event.currentTarget));
              }}
            >
              <label className="flex flex-col gap-1">
                Name
                <input className="field" name="name" required maxLength={120} />
              </label>
              <label className="flex flex-col gap-1">
                Person
                <input className="field" name="person" maxLength={120} />
              </label>
              <label className="flex flex-col gap-1">
                System
                <select className="field" name="system">
                  <option value="macos">macOS</option>
                  <option value="windows">Windows</option>
                  <option value="linux">Linux</option>
                </select>
              </label>
              {editors.length > 0 && (
                <fieldset>
                  <legend className="mb-1">Editors there</legend>
                  {editors.map((e) => (
                    <label key={e.id} className="flex gap-2 py-0.5">
                      <input type="checkbox" name="editors" value={e.id} />
                      {e.title}
                    </label>
                  ))}
                </fieldset>
              )}
              <div className="mt-1 flex gap-2">
                <button className="button main">Add and make a code</button>
                <Dialog.Close className="button quiet">Cancel</Dialog.Close>
              </div>
            </form>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
