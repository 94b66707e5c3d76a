'use client';
/** Another form of a look or a camera profile: worked out with its error first, then kept as an item of its own. */
import { useRouter } from 'next/navigation';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export interface DeriveFrom {
  kind: 'look' | 'camera-profile';
  title: string;
  cameras: string[];
}
interface Seen {
  said: string;
  bytes: number;
  residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number } | null;
}

const forms: Record<DeriveFrom['kind'], [string, string][]> = {
  look: [
    ['cube', 'a table (.cube)'],
    ['clf', 'Common LUT Format'],
    ['icc-link', 'an ICC device link'],
    ['icc-abstract', 'an ICC abstract profile'],
  ],
  'camera-profile': [
    ['icc-input', 'an ICC input profile'],
    ['without-look', 'without its look table'],
    ['without-map', 'without its hue and saturation map'],
    ['straight', 'with a straight tone curve'],
    ['editor-curve', 'without a tone curve'],
    ['first-light', 'for its first light alone'],
    ['second-light', 'for its second light alone'],
    ['other-camera', 'for another camera'],
  ],
};

export function Derive({ kind, title, versionId, onClose }: DeriveFrom & { versionId: string; onClose: () => void }) {
  const router = useRouter();
  const [form, setForm] = useState(forms[kind][0]![0]);
  const [name, setName] = useState(title);
  const [points, setPoints] = useState(33);
  const [kelvin, setKelvin] = useState(5000);
  const [camera, setCamera] = useState('');
  const [seen, setSeen] = useState<Seen | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const tabled = kind === 'look' || form === 'icc-input';
  const send = async (preview: boolean) => {
    setBusy(true);
    setProblem(null);
    try {
      const seen = await call<Seen & { itemId?: string }>(
        `/api/versions/${versionId}/derive${preview ? '?preview' : ''}`,
        'POST',
        { form, title: name, points, kelvin, camera },
      );
      if (preview) setSeen(seen);
      else {
        onClose();
        router.push(`/items/${seen.itemId}`);
      }
    } catch (error) {
      setProblem(problemOf(error));
      setSeen(null);
    } finally {
      setBusy(false);
    }
  };
  const change =
    <T,>(set: (v: T) => void) =>
    (v: T) => {
      set(v);
      setSeen(null);
    };
  const field = 'mb-3 flex flex-col gap-0.5 text-[12px] text-soft';
  const control = 'field text-[13.5px] text-ink';
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
          className="fixed left-1/2 top-[14vh] z-50 w-[460px] max-w-[92vw] -translate-x-1/2 border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-1 text-[17px]">Another form of {title}</Dialog.Title>
          <p className="mb-3 text-soft">It becomes a draft beside this one, and knows what it was made from.</p>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void send(!seen);
            }}
          >
            <label className={field}>
              As
              <select className={control} value={form} onChange={(e) => change(setForm)(e.target.value)}>
                {forms[kind].map(([value, word]) => (
                  <option key={value} value={value}>
                    {word}
                  </option>
                ))}
              </select>
            </label>
            <label className={field}>
              Title
              <input
                className={control}
                value={name}
                required
                maxLength={200}
                onChange={(e) => change(setName)(e.target.value)}
              />
            </label>
            <div className="flex gap-3">
              {tabled && (
                <label className={`${field} flex-1`}>
                  Points an axis
                  <select
                    className={control}
                    value={points}
                    onChange={(e) => change(setPoints)(Number(e.target.value))}
                  >
                    {[17, 33, 65].map((n) => (
                      <option key={n} value={n}>
                        {n}
                      </option>
                    ))}
                  </select>
                </label>
              )}
              {form === 'icc-input' && (
                <label className={`${field} flex-1`}>
                  Light, in kelvin
                  <input
                    className={control}
                    type="number"
                    min={2000}
                    max={50000}
                    step={50}
                    value={kelvin}
                    required
                    onChange={(e) => change(setKelvin)(Number(e.target.value))}
                  />
                </label>
              )}
              {form === 'other-camera' && (
                <label className={`${field} flex-1`}>
                  The camera, as its files name it
                  <input
                    className={control}
                    value={camera}
                    required
                    maxLength={200}
                    onChange={(e) => change(setCamera)(e.target.value)}
                  />
                </label>
              )}
            </div>
            <p role="status" className={seen ? 'mb-3 border-l-2 border-line pl-3' : 'sr-only'}>
              {seen && (
                <>
                  {seen.said}, {(seen.bytes / 1000).toLocaleString('en', { maximumFractionDigits: 0 })} kB.{' '}
                  {seen.residual
                    ? `ΔE00 to the source: mean ${seen.residual.meanDeltaE.toFixed(2)}, 95 % ${seen.residual.p95DeltaE.toFixed(2)}, max ${seen.residual.maxDeltaE.toFixed(2)}.`
                    : 'Nothing is approximated.'}
                </>
              )}
            </p>
            <Notice problem={problem} className="mb-3" />
            <div className="flex justify-end gap-2">
              <Dialog.Close className="button quiet">Leave it</Dialog.Close>
              <button className={`button ${seen ? 'main' : ''}`} disabled={busy}>
                {busy ? 'Working' : seen ? 'Keep it' : 'Work it out'}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
