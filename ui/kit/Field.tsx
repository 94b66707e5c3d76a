/** A field of a form: its label, and below it what is wrong with what was typed. */
import { useId, type ReactNode } from 'react';

interface Attributes {
  className: string;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}
interface Props {
  label: string;
  className?: string | undefined;
  problem?: string | undefined;
  /** draws the control itself; the attributes belong on it */ children: (attributes: Attributes) => ReactNode;
}

export function Field({ label, className = '', problem, children }: Props) {
  const id = useId();
  return (
    <div className={`flex flex-col gap-0.5 text-[12px] text-soft ${className}`}>
      <label className="flex flex-col gap-0.5">
        {label}
        {children({
          className: 'field text-[13.5px] text-ink',
          ...(problem ? { 'aria-invalid': true, 'aria-describedby': id } : {}),
        })}
      </label>
      {problem && (
        <span id={id} role="alert" className="text-madder">
          {problem}
        </span>
      )}
    </div>
  );
}
