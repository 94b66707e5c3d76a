'use client';
/** The studio's opening rules in their order: added, changed, moved, removed; saved at once, all together. */
import { hiddenRules, settings, settingNames, whenWords, type Rule } from '@/core/opening/rule';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { RuleDialog } from './RuleDialog';

interface Props {
  rules: readonly Rule[];
  revision: number;
  may: boolean;
  names: { cameras: readonly string[]; profiles: readonly string[] };
}

/** What a rule has a photo begun with, in words. */
const startWords = ({ start }: Rule): string =>
  settingNames
    .flatMap((name) => (start[name] ? [`${settings[name].label.toLowerCase()}: ${start[name]}`] : []))
    .join('; ');

export function StudioRules({ rules, revision, may, names }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  /** the place of the rule that is open; behind the last for a new one */
  const [open, setOpen] = useState<number | null>(null);
  const hidden = hiddenRules(rules);
  const save = (next: readonly Rule[]) => call('PUT /api/opening', { body: { revision, rules: [...next] } });
  const put = (next: readonly Rule[]) => void runAndRefresh(() => save(next));
  const move = (from: number, to: number) => {
    const next = rules.toSpliced(from, 1);
    put(next.toSpliced(to, 0, ...rules.slice(from, from + 1)));
  };
  return (
    <section aria-label="Rules of the studio" className="mb-8">
      {rules.length > 0 ? (
        <ol className="mb-2">
          {rules.map((rule, n) => (
            <li
              key={whenWords(rule.when)}
              className="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1.5"
            >
              <span className="text-[12px] tabular-nums text-soft">{n + 1}</span>
              <span className="font-serif text-[15px]">{whenWords(rule.when)}</span>
              <span className="text-soft">{startWords(rule)}</span>
              {hidden.has(n) && (
                <span className="text-ochre">
                  never taken: the rule for {whenWords(hidden.get(n)?.when ?? {})} stands before it
                </span>
              )}
              {may && (
                <RuleActions
                  words={whenWords(rule.when)}
                  busy={busy}
                  isFirst={n === 0}
                  isLast={n === rules.length - 1}
                  onChange={() => setOpen(n)}
                  onMove={(by) => move(n, n + by)}
                  onRemove={() => put(rules.toSpliced(n, 1))}
                />
              )}
            </li>
          ))}
        </ol>
      ) : (
        <p className="mb-2 border-t border-line py-2 text-soft">
          None yet. A rule says for which photos it is, and what an editor begins them with; the first that fits is
          taken.
        </p>
      )}
      {may && (
        <button className="button" onClick={() => setOpen(rules.length)}>
          Add a rule
        </button>
      )}
      <Notice problem={problem} className="mt-2" />
      {open !== null && (
        <RuleDialog
          title={open < rules.length ? 'Change the rule' : 'Add a rule'}
          rule={rules[open] ?? null}
          names={names}
          onSave={(rule) => save(rules.toSpliced(open, 1, rule))}
          onClose={() => setOpen(null)}
        />
      )}
    </section>
  );
}

interface ActionProps {
  words: string;
  busy: boolean;
  isFirst: boolean;
  isLast: boolean;
  onChange: () => void;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
}

function RuleActions({ words, busy, isFirst, isLast, onChange, onMove, onRemove }: ActionProps) {
  return (
    <span className="ml-auto inline-flex items-center gap-2">
      <button
        className="button quiet"
        disabled={busy || isFirst}
        aria-label={`Move up: ${words}`}
        onClick={() => onMove(-1)}
      >
        <ArrowUp size={14} aria-hidden />
      </button>
      <button
        className="button quiet"
        disabled={busy || isLast}
        aria-label={`Move down: ${words}`}
        onClick={() => onMove(1)}
      >
        <ArrowDown size={14} aria-hidden />
      </button>
      <button className="button quiet" disabled={busy} aria-label={`Change the rule for ${words}`} onClick={onChange}>
        Change
      </button>
      <button className="button quiet" disabled={busy} aria-label={`Remove the rule for ${words}`} onClick={onRemove}>
        Remove
      </button>
    </span>
  );
}
