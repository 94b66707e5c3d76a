'use client';
/** A camera or a lens of the studio: its names, what tells it apart, and where it fits. */
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export interface Gear {
  id: string;
  maker: string;
  model: string;
  names: string[];
  mount: string;
  conversion?: string;
  serials?: string[];
  sensor_width?: number | null;
  sensor_height?: number | null;
}
const label = 'flex flex-col gap-0.5 text-[12px] text-soft';
const control = 'field text-[13.5px] text-ink';
const words = (text: string): string[] =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean);
const size = (s: string): number | null => (s.trim() === '' ? null : Number(s));

export function GearForm({ kind, gear, onClose }: { kind: 'camera' | 'lens'; gear: Gear | null; onClose: () => void }) {
  const router = useRouter();
  const [f, setF] = useState({
    maker: gear?.maker ?? '',
    model: gear?.model ?? '',
    names: gear?.names.join(', ') ?? '',
    mount: gear?.mount ?? '',
    conversion: gear?.conversion ?? '',
    serials: gear?.serials?.join(', ') ?? '',
    sensor_width: String(gear?.sensor_width ?? ''),
    sensor_height: String(gear?.sensor_height ?? ''),
  });
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const [sure, setSure] = useState(false);
  const at = `/api/gear/${kind === 'camera' ? 'cameras' : 'lenses'}`;
  const field = (k: keyof typeof f) => ({
    className: control,
    value: f[k],
    onChange: (e: { target: { value: string } }) => setF({ ...f, [k]: e.target.value }),
  });
  const run = async (work: () => Promise<unknown>) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      router.refresh();
      onClose();
    } catch (error) {
      setProblem(problemOf(error));
    }
    setBusy(false);
  };
  const save = () =>
    run(() =>
      call(gear ? `${at}/${gear.id}` : at, gear ? 'PUT' : 'POST', {
        maker: f.maker,
        model: f.model,
        names: words(f.names),
        mount: f.mount,
        ...(kind === 'camera'
          ? {
              conversion: f.conversion,
              serials: words(f.serials),
              sensor_width: size(f.sensor_width),
              sensor_height: size(f.sensor_height),
            }
          : {}),
      }),
    );
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
          className="fixed left-1/2 top-[12vh] z-50 max-h-[80vh] w-[620px] max-w-[94vw] -translate-x-1/2 overflow-auto border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-2 text-[17px]">{gear ? gear.model : `A ${kind} of the studio`}</Dialog.Title>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void save();
            }}
          >
            <div className="mb-3 grid grid-cols-4 gap-3">
              <label className={label}>
                Maker
                <input {...field('maker')} maxLength={80} />
              </label>
              <label className={`${label} col-span-3`}>
                Model, as its files name it
                <input autoFocus {...field('model')} required maxLength={120} />
              </label>
              <label className={`${label} col-span-4`}>
                Other names that it bears, with commas
                <input {...field('names')} />
              </label>
              <label className={label}>
                Mount
                <input {...field('mount')} maxLength={60} />
              </label>
              {kind === 'camera' && (
                <>
                  <label className={`${label} col-span-3`}>
                    Serials of our bodies, with commas
                    <input {...field('serials')} />
                  </label>
                  <label className={`${label} col-span-2`}>
                    Conversion, such as infrared; none for a plain body
                    <input {...field('conversion')} maxLength={60} />
                  </label>
                  <label className={label}>
                    Sensor width, mm
                    <input type="number" step="any" min={1} max={200} {...field('sensor_width')} />
                  </label>
                  <label className={label}>
                    Sensor height, mm
                    <input type="number" step="any" min={1} max={200} {...field('sensor_height')} />
                  </label>
                </>
              )}
            </div>
            <Notice problem={problem} className="mb-3" />
            <div className="flex items-center gap-2">
              {gear &&
                (sure ? (
                  <>
                    <span className="text-soft">Requests for it stay.</span>
                    <button
                      type="button"
                      className="button danger"
                      disabled={busy}
                      onClick={() => void run(() => call(`${at}/${gear.id}`, 'DELETE'))}
                    >
                      Take {gear.model} off the list
                    </button>
                  </>
                ) : (
                  <button type="button" className="button danger" onClick={() => setSure(true)}>
                    Take off the list
                  </button>
                ))}
              <Dialog.Close className="button quiet ml-auto" type="button">
                Leave it
              </Dialog.Close>
              <button className="button main" disabled={busy}>
                {gear ? 'Keep' : 'List it'}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
