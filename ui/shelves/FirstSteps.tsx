'use client';
/** What a new studio does first, one step after the other; gone once all of it is done. */
import { Check } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { useToast } from '../kit/toast';
import { wordsOfStep, type Step } from './model/first-steps';
import { useShelves } from './shelves-context';

export function FirstSteps({ steps }: { steps: readonly Step[] }) {
  const { ask, may } = useShelves();
  const router = useRouter();
  const action = useAction();
  const tell = useToast();
  const next = steps.find((step) => !step.done && step.mine);
  const hide = (hidden: boolean) => call('PATCH /api/studio/first-steps', { body: { hidden } });
  const onHide = async () => {
    if (!(await action.run(() => hide(true)))) return;
    tell({ words: 'The first steps are hidden.', undo: () => hide(false) });
    router.refresh();
  };
  return (
    <section aria-label="First steps" className="mb-5 border border-line bg-sheet px-4 py-3">
      <div className="mb-2 flex flex-wrap items-baseline gap-3">
        <h2 className="text-[17px]">First steps</h2>
        <span className="text-soft">
          {steps.filter((step) => step.done).length} of {steps.length} done
        </span>
        <Link className="underline" href="/guide">
          Five minutes with Etagere
        </Link>
        {may.house && (
          <button className="button quiet ml-auto !h-[24px]" disabled={action.busy} onClick={() => void onHide()}>
            Hide
          </button>
        )}
      </div>
      <Notice problem={action.problem} className="mb-2" />
      <ol className="flex flex-wrap gap-x-5 gap-y-1.5">
        {steps.map((step) => (
          <li key={step.name} className="flex items-center gap-1.5">
            <span
              aria-hidden
              className={`grid h-[15px] w-[15px] place-items-center rounded-full border ${step.done ? 'border-verd bg-verd text-verd-ink' : 'border-line-strong'}`}
            >
              {step.done && <Check size={10} strokeWidth={3} />}
            </span>
            <span className="sr-only">{step.done ? 'Done: ' : 'To do: '}</span>
            <StepLink step={step} strong={step === next} onShelf={() => ask({ what: 'make a shelf' })} />
          </li>
        ))}
      </ol>
      {next && <p className="mt-2 text-soft">{wordsOfStep[next.name].why}</p>}
    </section>
  );
}

function StepLink({ step, strong, onShelf }: { step: Step; strong: boolean; onShelf: () => void }) {
  const { words, href } = wordsOfStep[step.name];
  if (step.done || !step.mine) return <span className="text-soft">{words}</span>;
  const className = `underline ${strong ? 'font-semibold' : ''}`;
  if (!href)
    return (
      <button type="button" className={className} onClick={onShelf}>
        {words}
      </button>
    );
  return (
    <Link className={className} href={href}>
      {words}
    </Link>
  );
}
