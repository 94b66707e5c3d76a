'use client';
/** How alike two items have to be to count as copies. */
import { studioEndpoints } from '@/core/api/studio';
import type { Tolerance } from '@/core/look/fingerprint';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { Difference } from './Difference';

export function CopyRule({ p95, max, may }: Tolerance & { may: boolean }) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<Tolerance>(studioEndpoints['PATCH /api/studio'].body, { p95, max });
  const save = async (body: Tolerance) => {
    if (await runAndRefresh(() => call('PATCH /api/studio', { body }))) form.reset(body);
  };
  return (
    <form noValidate onSubmit={(event) => void form.handleSubmit(save)(event)}>
      <Notice problem={problem} className="mb-2" />
      <p className="flex flex-wrap items-center gap-y-1">
        95 % of colors within
        <Difference form={form} name="p95" label="ΔE00 within which 95 percent of colors are" may={may} />
        ΔE00, and all within
        <Difference form={form} name="max" label="ΔE00 within which all colors are" may={may} />
        ΔE00
        {may && form.formState.isDirty && (
          <button className="button main ml-3" disabled={busy}>
            Set
          </button>
        )}
      </p>
      <p className="mt-1 text-[12.5px] text-soft">
        For arrivals that are read from now on, and for the groups on Copies.
      </p>
    </form>
  );
}
