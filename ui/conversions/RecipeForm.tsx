'use client';
/** What the items become. A change is worked out anew when it is asked for. */
import { useState } from 'react';
import { sameRecipe, type Bake, type Column, type Recipe } from '@/core/conversion/recipe';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';
import { TABLE_SIZES } from '../kit/PointsOptions';
import { ReachOptions } from '../kit/ReachOptions';
import { NumberField } from '../kit/NumberField';
import { choices, recipeOfChoice, valueOf, type Choice, type Language } from './model/recipe-words';
import type { Carriable } from './model/row';

interface Props {
  id: string;
  recipe: Recipe;
  languages: readonly Language[];
  /** settings of the rows that a table can carry */ settings: readonly Carriable[];
  /** frames of camera data */ frames: readonly { id: string; name: string; camera: string }[];
  may: boolean;
}

const groups: { kind: Choice['kind']; label: string }[] = [
  { kind: 'preset', label: 'Of presets' },
  { kind: 'look', label: 'Of looks' },
  { kind: 'camera-profile', label: 'Of camera profiles' },
];

export function RecipeForm({ id, recipe, languages, settings, frames, may }: Props) {
  const { busy, problem, runAndRefresh } = useAction();
  const [wanted, want] = useState(recipe);
  const isOther = !sameRecipe(wanted, recipe);
  const all = choices(languages);
  const save = () =>
    runAndRefresh(
      () => call('PATCH /api/conversions/:id', { id, body: { recipe: wanted as Exclude<Recipe, Column> } }),
      'The plan is worked out',
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <fieldset disabled={!may} className="flex min-w-0 flex-col gap-2">
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">
          Each becomes
          <select
            className="field text-[13.5px] text-ink"
            value={valueOf(wanted)}
            onChange={(event) => want(recipeOfChoice(event.target.value, wanted))}
          >
            {groups.map(({ kind, label }) => (
              <optgroup key={kind} label={label}>
                {all
                  .filter((choice) => choice.kind === kind)
                  .map((choice) => (
                    <option key={choice.value} value={choice.value}>
                      {choice.words}
                    </option>
                  ))}
              </optgroup>
            ))}
          </select>
        </label>
        <Details wanted={wanted} frames={frames} onChange={want} />
        {wanted.tool === 'bake' && settings.length > 0 && (
          <Leave settings={settings} leave={wanted.leave} onChange={(leave) => want({ ...wanted, leave })} />
        )}
        {isOther && (
          <div className="flex gap-2">
            <button className="button main" disabled={busy}>
              Work it out anew
            </button>
            <button type="button" className="button quiet" onClick={() => want(recipe)}>
              As it was
            </button>
          </div>
        )}
      </fieldset>
      <Notice problem={problem} className="mt-2" />
    </form>
  );
}

interface NumberProps {
  label: string;
  bounds: { min: number; max: number };
  value: number;
  onChange: (value: number) => void;
}

interface DetailsProps {
  wanted: Recipe;
  frames: Props['frames'];
  onChange: (recipe: Recipe) => void;
}

function Details({ wanted, frames, onChange }: DetailsProps) {
  // a column is made again as it was kept
  if (wanted.tool === 'preset' || wanted.tool === 'column') return null;
  if (wanted.tool === 'companion')
    return (
      <NumberIn
        label="Strength, in percent"
        bounds={{ min: 0, max: 400 }}
        value={wanted.strength}
        onChange={(strength) => onChange({ ...wanted, strength })}
      />
    );
  if (wanted.tool === 'bake') return <TableOf wanted={wanted} onChange={onChange} />;
  const { form } = wanted;
  const isTable = ['cube', 'clf', 'icc-link', 'icc-abstract', 'icc-input'].includes(form);
  return (
    <>
      {isTable && <Points value={wanted.points} onChange={(points) => onChange({ ...wanted, points })} />}
      {(form === 'icc-input' || form === 'anchored') && (
        <NumberIn
          label="Light, in kelvin"
          bounds={{ min: 2000, max: 50_000 }}
          value={wanted.kelvin}
          onChange={(kelvin) => onChange({ ...wanted, kelvin })}
        />
      )}
      {form === 'anchored' && (
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">
          Of this frame the neutral is put there
          <select
            className="field text-[13.5px] text-ink"
            value={wanted.frame}
            onChange={(event) => onChange({ ...wanted, frame: event.target.value })}
          >
            <option value="">Choose a frame</option>
            {frames.map(({ id, name, camera }) => (
              <option key={id} value={id}>
                {name}, {camera}
              </option>
            ))}
          </select>
        </label>
      )}
      {form === 'other-camera' && (
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">
          Camera
          <input
            className="field text-[13.5px] text-ink"
            value={wanted.camera}
            onChange={(event) => onChange({ ...wanted, camera: event.target.value })}
          />
        </label>
      )}
    </>
  );
}

function TableOf({ wanted, onChange }: { wanted: Bake; onChange: (recipe: Recipe) => void }) {
  const { above, ...rest } = wanted;
  return (
    <>
      <Points value={wanted.size} onChange={(size) => onChange({ ...wanted, size })} />
      <label className="flex flex-col gap-0.5 text-[12px] text-soft">
        Reaches
        <select
          className="field text-[13.5px] text-ink"
          value={above ?? ''}
          onChange={({ target: { value } }) => onChange(value ? { ...rest, above: Number(value) } : rest)}
        >
          <ReachOptions />
        </select>
      </label>
    </>
  );
}

export function Points({ value, onChange }: { value: number; onChange: (points: number) => void }) {
  const offered = [...new Set([...TABLE_SIZES, value])].sort((a, b) => a - b);
  return (
    <label className="flex flex-col gap-0.5 text-[12px] text-soft">
      Points an axis
      <select
        className="field text-[13.5px] text-ink"
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      >
        {offered.map((points) => (
          <option key={points}>{points}</option>
        ))}
      </select>
    </label>
  );
}

function NumberIn({ label, bounds, value, onChange }: NumberProps) {
  return (
    <div className="flex flex-col gap-0.5 text-[12px] text-soft">
      <span aria-hidden>{label}</span>
      <NumberField
        {...bounds}
        step={1}
        label={label}
        value={value}
        onValue={onChange}
        className="field w-full text-[13.5px] text-ink"
      />
    </div>
  );
}

interface LeaveProps {
  settings: readonly Carriable[];
  leave: readonly string[];
  onChange: (leave: string[]) => void;
}

/** Settings that go into the tables, for all rows at once. */
export function Leave({ settings, leave, onChange }: LeaveProps) {
  const take = (setting: string, on: boolean) =>
    onChange(on ? leave.filter((one) => one !== setting) : [...leave, setting]);
  return (
    <fieldset className="min-w-0 text-[12.5px]">
      <legend className="text-[12px] text-soft">Goes into the table</legend>
      <ul className="columns-2 gap-2">
        {settings.map(({ setting, title, used }) => (
          <li key={setting} className="break-inside-avoid">
            <label className="flex items-baseline gap-1.5 py-0.5">
              <input
                type="checkbox"
                className="translate-y-[2px]"
                checked={!leave.includes(setting)}
                onChange={(event) => take(setting, event.target.checked)}
              />
              <span>
                {title} <span className="text-soft">{used}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
