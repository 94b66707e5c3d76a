'use client';
/** The head of a column: what the candidate is, its strength, its rungs, and what can be done with the column. */
import { encodingText } from '@/core/look/assumed-encoding';
import { NumberField } from '../kit/NumberField';
import { useBench } from './bench-context';
import { BlindHead } from './BlindHead';
import { ColumnMenu } from './ColumnMenu';
import type { Candidate } from './model/candidate';
import { atStrength, profileOf, STRENGTH_MOST, topLayer, type Column, type Layer } from './model/column';
import { Rungs } from './Rungs';

export function ColumnHead({ index }: { index: number }) {
  const { state, candidates, nameAt, run } = useBench();
  const column = state.columns[index];
  if (!column) return null;
  const name = nameAt(index);
  const isReference = index === state.reference;
  if (state.blind > 0 && !isReference) return <BlindHead index={index} name={name} />;
  const profile = candidates.get(profileOf(column) ?? '');
  const top = topLayer(column);
  const change = (to: Column) => run({ do: 'change a column', column: index, to });
  return (
    <div className="min-w-0 pb-1.5" data-column={name}>
      <div className="flex items-start gap-1">
        <h2 className="line-clamp-2 min-h-[36px] flex-1 text-[15.5px] leading-[1.15] [overflow-wrap:anywhere]">
          {name}
        </h2>
        <ColumnMenu index={index} column={column} name={name} hidden={false} />
      </div>
      {top ? (
        <LayerStrength
          top={top}
          candidate={candidates.get(top.version)}
          name={name}
          onStrength={(strength) => change(atStrength(column, strength))}
        />
      ) : (
        <p className="mt-0.5 h-[18px] truncate text-[12px] text-soft">{roleOf(isReference, !!profile)}</p>
      )}
      <p className="flex h-[22px] items-center gap-1 overflow-hidden whitespace-nowrap text-[11.5px] text-soft">
        {isReference && top ? 'reference ' : ''}
        <ProfileFacts column={column} profile={profile} onChange={change} />
        <ColumnFacts column={column} />
      </p>
    </div>
  );
}

function roleOf(isReference: boolean, hasProfile: boolean): string {
  if (isReference) return 'reference';
  return hasProfile ? 'profile' : '';
}

interface StrengthProps {
  top: Layer;
  candidate: Candidate | undefined;
  name: string;
  onStrength: (strength: number) => void;
}

function LayerStrength({ top, candidate, name, onStrength }: StrengthProps) {
  if (candidate?.fixed && top.strength === 100)
    return <p className="mt-0.5 h-[18px] truncate text-[12px] text-soft">as made: takes no strength</p>;
  return (
    <label className="mt-0.5 flex items-center gap-1.5 text-[12px] text-soft">
      <span className="sr-only">Strength of {name}</span>
      <input
        type="range"
        min={0}
        max={Math.max(candidate?.most ?? 150, top.strength)}
        step={1}
        value={top.strength}
        onChange={(event) => onStrength(Number(event.target.value))}
        className="h-4 min-w-0 flex-1 accent-[var(--verd)]"
        aria-label={`Strength of ${name}`}
      />
      <NumberField
        min={0}
        max={STRENGTH_MOST}
        step={1}
        whole
        value={top.strength}
        onValue={onStrength}
        className="w-[42px] bg-transparent text-right"
        label={`Strength of ${name} in percent, up to ${STRENGTH_MOST}`}
      />
      %
    </label>
  );
}

interface ProfileProps {
  column: Column;
  profile: Candidate | undefined;
  onChange: (to: Column) => void;
}

function ProfileFacts({ column, profile, onChange }: ProfileProps) {
  if (!profile) return null;
  return (
    <>
      <Rungs column={column} profile={profile} onChange={onChange} />
      {profile.noCurve && 'no curve: each editor puts its own'}
      {profile.icc}
    </>
  );
}

function ColumnFacts({ column }: { column: Column }) {
  const assumed = topLayer(column)?.assumed;
  const { source } = column;
  return (
    <>
      {assumed && <span className="truncate font-semibold text-ochre">read as {encodingText(assumed)}</span>}
      {source.from === 'profile' && source.anchor && <span className="text-verd">anchored {source.anchor} K</span>}
      {column.range ? ' range' : ''}
      {column.trim ? ' trimmed' : ''}
    </>
  );
}
