'use client';
/** The forms of a design side by side: what each is for, and which one the page shows. */
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';

export interface FormShown {
  versionId: string;
  number: number;
  /** '' for the plain form */ variant: string;
  /** the photos and the editor that it is for, in words */ purpose: string;
  status: string;
  selvedge: [string, string][] | null;
}

interface Props {
  forms: readonly FormShown[];
  shown: string;
  /** lays all of them on the bench; null where they cannot be */ bench: string | null;
}

export const formName = (variant: string): string => variant || 'Plain form';

/** The address of the page with some of what it says said anew; the frame and the strength stay. */
function addressWith(params: URLSearchParams, change: Record<string, string>): string {
  const next = new URLSearchParams(params);
  for (const [key, value] of Object.entries(change)) next.set(key, value);
  return `?${next}`;
}

export function Forms({ forms, shown, bench }: Props) {
  const params = new URLSearchParams(useSearchParams().toString());
  const at = forms.find((form) => form.versionId === shown) ?? forms[0];
  return (
    <nav aria-label="Forms of this design" className="mb-4">
      <ul className="flex flex-wrap gap-2">
        {forms.map((form) => (
          <li key={form.versionId}>
            <Link
              prefetch={false}
              scroll={false}
              href={addressWith(params, { form: form.versionId })}
              aria-current={form === at ? 'page' : undefined}
              className={`flex min-w-[180px] items-center gap-2.5 border p-2 ${form === at ? 'border-verd bg-verd-wash' : 'border-line hover:border-line-strong'}`}
            >
              <Selvedge threads={form.selvedge} className="h-[30px] w-[36px] shrink-0" />
              <span className="min-w-0 text-[13.5px] leading-tight">
                <span className="block font-semibold first-letter:uppercase">{formName(form.variant)}</span>
                <span className="text-[12px] text-soft">
                  {form.purpose}, version {form.number}
                </span>
              </span>
              <State of={form.status} />
            </Link>
          </li>
        ))}
      </ul>
      <p className="mt-1.5 flex flex-wrap gap-x-4 text-[12.5px] text-soft">
        <span>What the page shows and offers is of the form that is marked.</span>
        {bench && (
          <Link prefetch={false} className="underline" href={bench}>
            All forms on the bench
          </Link>
        )}
        {at && <Others forms={forms} at={at} compare={(older, newer) => addressWith(params, { older, newer })} />}
      </p>
    </nav>
  );
}

interface OthersProps {
  forms: readonly FormShown[];
  at: FormShown;
  compare: (older: string, newer: string) => string;
}

/** Ways to compare the form that is shown with each other one. */
const Others = ({ forms, at, compare }: OthersProps) =>
  forms
    .filter((form) => form !== at)
    .map((form) => (
      <Link key={form.versionId} prefetch={false} className="underline" href={compare(form.versionId, at.versionId)}>
        Compare with {form.variant ? `“${form.variant}”` : 'the plain form'}
      </Link>
    ));
