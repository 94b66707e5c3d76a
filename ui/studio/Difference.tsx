'use client';
/** A difference in ΔE00 within a sentence, and what is wrong with it. */
import { useId } from 'react';
import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';
import { problemWith } from '../kit/form';

interface Props<Form extends FieldValues> {
  form: UseFormReturn<Form>;
  name: Path<Form>;
  label: string;
  may: boolean;
}

export function Difference<Form extends FieldValues>({ form, name, label, may }: Props<Form>) {
  const id = useId();
  const problem = problemWith(form, name);
  return (
    <>
      <input
        type="number"
        step={0.05}
        className="field mx-1.5 w-[72px]"
        aria-label={label}
        disabled={!may}
        {...(problem ? { 'aria-invalid': true, 'aria-describedby': id } : {})}
        {...form.register(name, { valueAsNumber: true })}
      />
      {problem && (
        <span id={id} role="alert" className="mr-1.5 text-[12px] text-madder">
          {problem}
        </span>
      )}
    </>
  );
}
