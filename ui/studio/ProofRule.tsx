'use client';
/** How far off a table may be before the lead has to say so. */
import { studioEndpoints } from '@/core/api/studio';
import type { Thresholds } from '@/core/conversion/outcome';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { Difference } from './Difference';

export function ProofRule({ mean, max, may }: Thresholds & { may: boolean }) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<Thresholds>(studioEndpoints['PATCH /api/studio/proof'].body, { mean, max });
  const save = async (body: Thresholds) => {
    if (await runAndRefresh(() => call('PATCH /api/studio/proof', { body }))) form.reset(body);
  };
  return (
    <form noValidate onSubmit={(event) => void form.handleSubmit(save)(event)}>
      <Notice problem={problem} className="mb-2" />
      <p className="flex flex-wrap items-center gap-y-1">
        A table may be off by
        <Difference form={form} name="mean" label="ΔE00 on average" may={may} />
        ΔE00 on average, and by
        <Difference form={form} name="max" label="ΔE00 at the farthest color" may={may} />
        ΔE00 at the farthest color
        {may && form.formState.isDirty && (
          <button className="button main ml-3" disabled={busy}>
            Set
          </button>
        )}
      </p>
      <p className="mt-1 text-[12.5px] text-soft">
        What is further off is told in conversions, and rolled out only where the lead confirms it.
      </p>
    </form>
  );
}
