'use client';
/** A number that is typed at leisure: it counts with Enter, when one leaves the field, or by a step of the arrow keys. */
import { useId, useState, type KeyboardEvent } from 'react';
import { readNumber, stepped, type Bounds } from './number';

interface Props extends Bounds {
  label: string;
  value: number;
  step: number;
  onValue: (value: number) => void;
  className?: string;
}

/** With Shift, arrow keys go ten steps. */
const FAR = 10;

export function NumberField({ label, value, step, onValue, className = 'field', ...bounds }: Props) {
  const { typed, problem, type, apply, takeBack, stepBy } = useTyped(value, bounds, onValue);
  const told = useId();
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const far = event.shiftKey ? FAR : 1;
    if (event.key === 'ArrowUp') stepBy(step * far);
    else if (event.key === 'ArrowDown') stepBy(-step * far);
    else if (event.key === 'Enter') apply();
    else if (event.key === 'Escape' && typed !== null) {
      takeBack();
      event.stopPropagation();
    } else return;
    event.preventDefault();
  };
  return (
    <span className="relative inline-flex">
      <input
        type="text"
        inputMode="decimal"
        role="spinbutton"
        autoComplete="off"
        aria-label={label}
        aria-valuenow={value}
        aria-valuemin={bounds.min}
        aria-valuemax={bounds.max}
        {...(problem ? { 'aria-invalid': true, 'aria-describedby': told } : {})}
        className={className}
        value={typed ?? String(value)}
        onChange={(event) => type(event.target.value)}
        onBlur={apply}
        onKeyDown={onKeyDown}
      />
      {problem && (
        <span
          id={told}
          role="alert"
          className="absolute left-0 top-full z-20 mt-px whitespace-nowrap bg-paper px-1 text-[11px] text-madder"
        >
          {problem}
        </span>
      )}
    </span>
  );
}

/** The text as it is typed, until it counts. What is no number of this field stays there, with what is wrong with it. */
function useTyped(value: number, bounds: Bounds, onValue: (value: number) => void) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const show = (text: string | null, wrong: string | null) => {
    setTyped(text);
    setProblem(wrong);
  };
  const apply = () => {
    if (typed === null) return;
    const read = readNumber(typed, bounds);
    if (read.value === null) {
      setProblem(read.problem);
      return;
    }
    show(null, null);
    if (read.value !== value) onValue(read.value);
  };
  const stepBy = (by: number) => {
    const from = typed === null ? value : (readNumber(typed, bounds).value ?? value);
    show(null, null);
    onValue(stepped(from, by, bounds));
  };
  return { typed, problem, type: (text: string) => show(text, null), apply, takeBack: () => show(null, null), stepBy };
}
