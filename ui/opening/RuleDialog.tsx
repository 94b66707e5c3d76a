'use client';
/** One of the studio's opening rules: when it is for a photo, and what that is begun with. */
import { conditions, ruleSchema, settings, tidy, type Condition, type Rule, type Setting } from '@/core/opening/rule';
import { Field } from '../kit/Field';
import { useAction } from '../kit/action';
import { problemWith, useWrittenForm } from '../kit/form';
import { FormProblems } from '../kit/FormProblems';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';

type Fields = { when: Record<Condition, string>; start: Record<Setting, string> };
type Name = `when.${Condition}` | `start.${Setting}`;

const NONE: Fields = {
  when: { camera: '', input: '', lens: '', iso: '' },
  start: { lens: '', noise: '', curve: '', exposure: '', engine: '', profile: '', preset: '', look: '' },
};

interface Props {
  title: string;
  rule: Rule | null;
  /** names that are offered, by field */ names: { cameras: readonly string[]; profiles: readonly string[] };
  onSave: (rule: Rule) => Promise<unknown>;
  onClose: () => void;
}

const hints: Partial<Record<Name, string>> = {
  'when.camera': 'any camera',
  'when.iso': '100-800, or 1600-',
  'start.lens': 'matched, last used, none, or a lens',
};

/** What may be said of a field: its words, or any text with some that are offered. */
const definitionOf = (name: Name) => {
  const [part, field] = name.split('.') as ['when' | 'start', Condition & Setting];
  return part === 'when' ? conditions[field] : settings[field];
};

export function RuleDialog({ title, rule, names, onSave, onClose }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useWrittenForm<Fields, Rule>(ruleSchema, (fields) => tidy(fields), {
    when: { ...NONE.when, ...rule?.when },
    start: { ...NONE.start, ...rule?.start },
  });
  const save = form.handleSubmit(async (said) => {
    if (await runAndRefresh(() => onSave(said))) onClose();
  });
  const offered: Partial<Record<Name, readonly string[]>> = {
    'when.camera': names.cameras,
    'start.profile': names.profiles,
    'start.lens': settings.lens.values ?? [],
  };
  const control = (name: Name, any: string) => {
    const { label, values, named } = definitionOf(name);
    return (
      <Field key={name} label={label} problem={problemWith(form, name)}>
        {(attributes) =>
          values && !named ? (
            <select {...attributes} {...form.register(name)}>
              <option value="">{any}</option>
              {values.map((value) => (
                <option key={value}>{value}</option>
              ))}
            </select>
          ) : (
            <>
              <input
                {...attributes}
                {...form.register(name)}
                list={`offered ${name}`}
                placeholder={hints[name] ?? any}
              />
              <datalist id={`offered ${name}`}>
                {(offered[name] ?? []).map((one) => (
                  <option key={one} value={one} />
                ))}
              </datalist>
            </>
          )
        }
      </Field>
    );
  };
  return (
    <Modal title={title} onClose={onClose}>
      <form noValidate onSubmit={(event) => void save(event)}>
        <fieldset className="mb-3 grid grid-cols-2 gap-2">
          <legend className="mb-1 text-[13.5px]">For</legend>
          {(Object.keys(conditions) as Condition[]).map((name) => control(`when.${name}`, 'any'))}
        </fieldset>
        <fieldset className="mb-2 grid grid-cols-2 gap-2">
          <legend className="mb-1 text-[13.5px]">Begin with</legend>
          {(Object.keys(settings) as Setting[]).map((name) => control(`start.${name}`, 'the editor’s own way'))}
        </fieldset>
        <FormProblems words={problemWith(form, 'start') ?? ''} />
        <Notice problem={problem} />
        <ModalFoot>
          <button className="button main" disabled={busy}>
            Save
          </button>
        </ModalFoot>
      </form>
    </Modal>
  );
}
