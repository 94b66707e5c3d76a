'use client';
/** The head of a column: what the candidate is, its strength, its rungs, and what can be done with the column. */
import { MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { readings, readingText } from '@/core/look/assumed-encoding';
import type { Candidate } from './candidate';
import { STAGES, type Column } from './state';

export type ColumnAct =
  'left' | 'right' | 'remove' | 'reference' | 'strengths' | 'like' | 'trim' | 'add' | 'choose' | 'unexport';
interface Props {
  column: Column;
  name: string;
  candidates: ReadonlyMap<string, Candidate>;
  reference: boolean;
  blind: boolean;
  act: (what: ColumnAct) => void;
  set: (c: Column) => void;
  may: { judge: boolean; frames: boolean };
}

const rungWords: Record<string, string> = {
  'hue-sat': 'map',
  exposure: 'exposure',
  look: 'look table',
  curve: 'curve',
};
const entry = 'flex cursor-default px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash data-[disabled]:text-soft';

export function ColumnHead({ column, name, candidates, reference, blind, act, set, may }: Props) {
  const profile = candidates.get(column.profile);
  const last = column.parts[column.parts.length - 1];
  const item = last && candidates.get(last.version);
  const most = Math.max(item?.most ?? 150, last?.strength ?? 0);
  const strength = (v: number) =>
    set({
      ...column,
      parts: column.parts.map((part, i) =>
        i === column.parts.length - 1 ? { ...part, strength: Math.max(0, Math.min(400, Math.round(v))) } : part,
      ),
    });
  const read = (reading: number | undefined) =>
    set({
      ...column,
      parts: column.parts.map((part, i) => {
        const { reading: _was, ...rest } = part;
        void _was;
        return i === column.parts.length - 1 ? { ...rest, ...(reading ? { reading } : {}) } : part;
      }),
    });
  return (
    <div className="min-w-0 pb-1.5" data-column={name}>
      <div className="flex items-start gap-1">
        <h2 className="line-clamp-2 min-h-[36px] flex-1 text-[15.5px] leading-[1.15] [overflow-wrap:anywhere]">
          {name}
        </h2>
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="button quiet !h-[22px] !px-1" aria-label={`What can be done with ${name}`}>
            <MoreHorizontal aria-hidden size={14} />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              className="z-40 min-w-[210px] border border-line bg-paper py-1"
              style={{ boxShadow: 'var(--shade)' }}
            >
              {may.judge && !blind && (
                <DropdownMenu.Item className={entry} disabled={!profile && !item} onSelect={() => act('choose')}>
                  Choose or judge
                </DropdownMenu.Item>
              )}
              <DropdownMenu.Item className={entry} onSelect={() => act('reference')} disabled={reference}>
                Make it the reference
              </DropdownMenu.Item>
              <DropdownMenu.Item className={entry} onSelect={() => act('add')}>
                Lay another look over it
              </DropdownMenu.Item>
              <DropdownMenu.Item className={entry} onSelect={() => act('trim')}>
                {column.trim ? 'Take the trim off' : 'Trim by slope, offset, power'}
              </DropdownMenu.Item>
              <DropdownMenu.Item className={entry} onSelect={() => set({ ...column, range: !column.range })}>
                {column.range ? 'Range compression off' : 'Range compression on'}
              </DropdownMenu.Item>
              {item && !item.fixed && !blind && (
                <DropdownMenu.Item className={entry} onSelect={() => act('strengths')}>
                  A row of strengths
                </DropdownMenu.Item>
              )}
              {item?.kind === 'look' && (
                <DropdownMenu.Sub>
                  <DropdownMenu.SubTrigger className={entry}>Read its values as …</DropdownMenu.SubTrigger>
                  <DropdownMenu.Portal>
                    <DropdownMenu.SubContent
                      className="z-50 min-w-[210px] border border-line bg-paper py-1"
                      style={{ boxShadow: 'var(--shade)' }}
                    >
                      <DropdownMenu.Item className={entry} onSelect={() => read(undefined)}>
                        the encoding that holds
                      </DropdownMenu.Item>
                      {readings.map((reading, i) => (
                        <DropdownMenu.Item key={i} className={entry} onSelect={() => read(i + 1)}>
                          {readingText(reading)}
                        </DropdownMenu.Item>
                      ))}
                    </DropdownMenu.SubContent>
                  </DropdownMenu.Portal>
                </DropdownMenu.Sub>
              )}
              {(item ?? profile) && !blind && (
                <DropdownMenu.Item className={entry} onSelect={() => act('like')}>
                  The same style from other sources
                </DropdownMenu.Item>
              )}
              <DropdownMenu.Item className={entry} onSelect={() => act('left')}>
                Move left
              </DropdownMenu.Item>
              <DropdownMenu.Item className={entry} onSelect={() => act('right')}>
                Move right
              </DropdownMenu.Item>
              {column.profile.startsWith('x:') && may.frames && (
                <DropdownMenu.Item className={`${entry} text-madder`} onSelect={() => act('unexport')}>
                  Remove these exports from the studio
                </DropdownMenu.Item>
              )}
              <DropdownMenu.Item className={`${entry} text-madder`} onSelect={() => act('remove')}>
                Take it off the bench
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      {last && item?.fixed && last.strength === 100 ? (
        <p className="mt-0.5 h-[18px] truncate text-[12px] text-soft">as made: takes no strength</p>
      ) : last ? (
        <label className="mt-0.5 flex items-center gap-1.5 text-[12px] text-soft">
          <span className="sr-only">Strength of {name}</span>
          <input
            type="range"
            min={0}
            max={most}
            step={1}
            value={last.strength}
            onChange={(e) => strength(Number(e.target.value))}
            className="h-4 min-w-0 flex-1 accent-[var(--verd)]"
            aria-label={`Strength of ${name}`}
          />
          <input
            type="number"
            min={0}
            max={400}
            value={last.strength}
            onChange={(e) => strength(Number(e.target.value))}
            className="w-[42px] bg-transparent text-right"
            aria-label={`Strength of ${name} in percent, up to 400`}
          />
          %
        </label>
      ) : (
        <p className="mt-0.5 h-[18px] truncate text-[12px] text-soft">
          {reference ? 'reference' : profile ? 'profile' : ''}
        </p>
      )}
      <p className="flex h-[22px] items-center gap-1 overflow-hidden whitespace-nowrap text-[11.5px] text-soft">
        {reference && last ? 'reference ' : ''}
        {profile && profile.rungs.length > 0 && !blind && (
          <span role="group" aria-label={`Rungs of ${profile.title}`} className="flex gap-1">
            {STAGES.map((s, i) =>
              profile.rungs.includes(s) ? (
                <button
                  key={s}
                  aria-pressed={(column.stages >> i) % 2 === 1}
                  className={`border-b-2 px-0.5 ${(column.stages >> i) % 2 === 1 ? 'border-verd text-ink' : 'border-transparent line-through'}`}
                  onClick={() => set({ ...column, stages: column.stages ^ (1 << i) })}
                  onDoubleClick={() => set({ ...column, stages: (1 << (i + 1)) - 1 })}
                  title="Click mutes it; double click stops here"
                >
                  {rungWords[s]}
                </button>
              ) : null,
            )}
          </span>
        )}
        {profile?.noCurve && !blind ? 'no curve: each editor puts its own' : ''}
        {profile?.icc && !blind ? profile.icc : ''}
        {last?.reading ? (
          <span className="truncate font-semibold text-ochre">read as {readingText(readings[last.reading - 1]!)}</span>
        ) : null}
        {column.anchor ? <span className="text-verd">anchored {column.anchor} K</span> : null}
        {column.range ? ' range' : ''}
        {column.trim ? ' trimmed' : ''}
      </p>
    </div>
  );
}
