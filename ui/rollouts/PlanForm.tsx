'use client';
/** Which approved versions onto which stations; the plan shows every file before anything is written. */
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { useController, useWatch, type Control } from 'react-hook-form';
import { rolloutEndpoints } from '@/core/api/rollouts';
import { distinct } from '@/core/lists';
import { byGroup } from '@/core/records/groups';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { problemsIn, useSchemaForm } from '../kit/form';
import { FormProblems } from '../kit/FormProblems';
import { Notice } from '../kit/Notice';
import { Selvedge } from '../kit/Selvedge';
import { counted } from '../kit/words';

interface PlannedVersion {
  versionId: string;
  title: string;
  kind: string;
  number: number;
  selvedge: [string, string][] | null;
}
interface Props {
  versions: PlannedVersion[];
  stations: { id: string; name: string; note: string; groups: readonly string[] }[];
  chosen: string[];
  /** stations that are chosen already */ at?: readonly string[];
}
/** By their ids. */
interface Plan {
  versions: string[];
  stations: string[];
}

export function PlanForm({ versions, stations, chosen, at = [] }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<Plan>(rolloutEndpoints['POST /api/rollouts'].body, {
    versions: chosen,
    stations: [...at],
  });
  const [items, places] = useWatch({ control: form.control, name: ['versions', 'stations'] });
  const plan = (body: Plan) =>
    run(async () => {
      const { id } = await call('POST /api/rollouts', { body });
      router.push(`/rollouts/${id}`);
    });
  return (
    <form className="contents" onSubmit={(event) => void form.handleSubmit(plan)(event)}>
      <div className="grid max-w-[1080px] grow grid-cols-2 content-start gap-10">
        <fieldset>
          <legend className="mb-1 font-serif text-[17px] font-medium">What</legend>
          {versions.map((version) => (
            <Choice key={version.versionId} control={form.control} of="versions" id={version.versionId}>
              <Selvedge threads={version.selvedge} className="h-[30px] w-[38px] shrink-0" />
              <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{version.title}</span>
              <span className="ml-auto whitespace-nowrap text-[12px] text-soft">
                {version.kind}, v{version.number}
              </span>
            </Choice>
          ))}
          {!versions.length && (
            <p className="text-soft">Nothing is approved yet. Open an item, confirm its encoding and approve it.</p>
          )}
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-serif text-[17px] font-medium">Where</legend>
          <Groups groups={byGroup(stations)} taken={places} onTake={(ids) => form.setValue('stations', ids)} />
          {stations.map((station) => (
            <Choice key={station.id} control={form.control} of="stations" id={station.id}>
              <span>
                <span className="font-serif text-[15px]">{station.name}</span>
                <span className="block text-[12px] text-soft">{station.note}</span>
              </span>
            </Choice>
          ))}
          {!stations.length && <p className="text-soft">There is no station yet.</p>}
        </fieldset>
      </div>
      <Notice problem={problem} className="mt-4" />
      <FormProblems words={problemsIn(form)} />
      <div className="sticky bottom-0 -mx-6 mt-6 flex items-center gap-3 border-t border-line bg-sheet px-6 py-3">
        <span className="text-soft">
          {counted(items.length, 'item')} onto {counted(places.length, 'station')}
        </span>
        <button className="button main ml-auto" disabled={busy || !items.length || !places.length}>
          {busy ? 'Planning' : 'Show every file'}
        </button>
      </div>
    </form>
  );
}

interface GroupsProps {
  groups: readonly { name: string; ids: readonly string[] }[];
  taken: readonly string[];
  onTake: (ids: string[]) => void;
}

/** All stations of a group at once; those that are taken already stay so. */
function Groups({ groups, taken, onTake }: GroupsProps) {
  if (!groups.length) return null;
  return (
    <p className="mb-2 flex flex-wrap gap-2">
      {groups.map(({ name, ids }) => (
        <button
          key={name}
          type="button"
          className="button"
          disabled={ids.every((id) => taken.includes(id))}
          onClick={() => onTake(distinct([...taken, ...ids]))}
        >
          All of {name}
        </button>
      ))}
    </p>
  );
}

interface ChoiceProps {
  control: Control<Plan>;
  of: keyof Plan;
  id: string;
  children: ReactNode;
}

/** One of many that can be taken. */
function Choice({ control, of, id, children }: ChoiceProps) {
  const { field } = useController({ control, name: of });
  const taken = field.value.includes(id);
  return (
    <label className="flex items-center gap-3 border-t border-line py-1.5">
      <input
        type="checkbox"
        name={of}
        checked={taken}
        onChange={() => field.onChange(taken ? field.value.filter((one) => one !== id) : [...field.value, id])}
      />
      {children}
    </label>
  );
}
