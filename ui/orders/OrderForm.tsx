'use client';
/** A standing order: what is followed, and which stations follow it. */
import { useState } from 'react';
import { orderEndpoints } from '@/core/api/orders';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { FormProblems } from '../kit/FormProblems';
import { useAction } from '../kit/action';
import { Modal, ModalFoot } from '../kit/Modal';
import { Notice } from '../kit/Notice';
import { Ticks, type Choice } from '../stations/Ticks';

export interface OrderFields {
  name: string;
  shelves: string[];
  packs: string[];
  ribbons: boolean;
  choices: boolean;
  groups: string[];
  stations: string[];
}
export interface OrderChoices {
  shelves: readonly Choice[];
  packs: readonly Choice[];
  groups: readonly string[];
  stations: readonly Choice[];
}
interface Props {
  title: string;
  choices: OrderChoices;
  fields: OrderFields;
  onSave: (fields: OrderFields) => Promise<unknown>;
  onClose: () => void;
}

const house: readonly Choice[] = [
  { id: 'ribbons', title: 'the everyday list' },
  { id: 'choices', title: 'the chosen profiles and looks' },
];

export function OrderForm({ title, choices, fields, onSave, onClose }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const form = useSchemaForm<OrderFields>(orderEndpoints['POST /api/orders'].body, fields);
  const [shown, setShown] = useState(fields);
  const set = (change: Partial<OrderFields>) => {
    setShown({ ...shown, ...change });
    for (const [key, value] of Object.entries(change)) form.setValue(key as keyof OrderFields, value);
  };
  const save = async (body: OrderFields) => {
    if (await runAndRefresh(() => onSave(body))) onClose();
  };
  return (
    <Modal title={title} width={560} top="8vh" onClose={onClose}>
      <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(save)(event)}>
        <Field label="Name" problem={problemWith(form, 'name')}>
          {(attributes) => <input autoFocus {...attributes} {...form.register('name')} />}
        </Field>
        <div className="grid grid-cols-2 gap-4">
          <div className="flex flex-col gap-3">
            <Ticks
              legend="Shelves followed"
              choices={choices.shelves}
              ticked={shown.shelves}
              onTick={(shelves) => set({ shelves })}
            />
            {choices.packs.length > 0 && (
              <Ticks
                legend="Packs followed"
                choices={choices.packs}
                ticked={shown.packs}
                onTick={(packs) => set({ packs })}
              />
            )}
            <Ticks
              legend="Of the house"
              choices={house}
              ticked={house.map(({ id }) => id).filter((id) => shown[id as 'ribbons' | 'choices'])}
              onTick={(ticked) => set({ ribbons: ticked.includes('ribbons'), choices: ticked.includes('choices') })}
            />
          </div>
          <div className="flex flex-col gap-3">
            {choices.groups.length > 0 && (
              <Ticks
                legend="Groups that follow, whoever comes into them"
                choices={choices.groups.map((name) => ({ id: name, title: name }))}
                ticked={shown.groups}
                onTick={(groups) => set({ groups })}
              />
            )}
            <Ticks
              legend="Stations that follow"
              choices={choices.stations}
              ticked={shown.stations}
              onTick={(stations) => set({ stations })}
            />
          </div>
        </div>
        <p className="text-soft">
          The newest approved version of each item is due at each editor that takes it. Nothing is written by itself:
          what is due is planned, looked at and confirmed like any rollout.
        </p>
        <FormProblems words={problemWith(form, 'stations') ?? ''} />
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
