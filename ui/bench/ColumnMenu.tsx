'use client';
/** What can be done with a column. */
import { MoreHorizontal } from 'lucide-react';
import { encodingText, otherEncodings } from '@/core/look/assumed-encoding';
import { call } from '../kit/call';
import { Menu, MenuEntry, SubMenu } from '../kit/Menu';
import { useBench } from './bench-context';
import type { Candidate } from './model/candidate';
import { assuming, columnFor, isExport, profileOf, rowOfStrengths, topLayer, type Column } from './model/column';

interface Props {
  index: number;
  column: Column;
  name: string;
  /** nobody is to know what it is */ hidden: boolean;
}

export function ColumnMenu({ index, column, name, hidden }: Props) {
  const { state, candidates, may, run, ask, setTrimming } = useBench();
  const item = candidates.get(topLayer(column)?.version ?? '');
  const profile = candidates.get(profileOf(column) ?? '');
  const change = (to: Column) => run({ do: 'change a column', column: index, to });
  const remove = () => {
    setTrimming(null);
    run({ do: 'take off a column', column: index });
  };
  const face = <MoreHorizontal aria-hidden size={14} />;
  return (
    <Menu title={`What can be done with ${name}`} face={face} className="button quiet !h-[22px] !px-1">
      {may.judge && !hidden && (
        <MenuEntry
          words="Choose or judge"
          off={!profile && !item}
          onSelect={() => ask({ what: 'judge', column: index })}
        />
      )}
      <MenuEntry
        words="Make it the reference"
        off={index === state.reference}
        onSelect={() => run({ do: 'make the reference', column: index })}
      />
      <MenuEntry words="Lay another look over it" onSelect={() => ask({ what: 'find a layer', column: index })} />
      <TrimEntry index={index} column={column} onChange={change} />
      <MenuEntry
        words={column.range ? 'Range compression off' : 'Range compression on'}
        onSelect={() => change({ ...column, range: !column.range })}
      />
      {may.keep && !hidden && (
        <MenuEntry
          words="Keep it as a look"
          off={!column.layers.length}
          onSelect={() => ask({ what: 'keep the column', column: index })}
        />
      )}
      {!hidden && <MoreColumns index={index} column={column} item={item} profile={profile} />}
      {item?.kind === 'look' && <EncodingMenu column={column} onChange={change} />}
      <MenuEntry words="Move left" onSelect={() => run({ do: 'move a column', column: index, by: -1 })} />
      <MenuEntry words="Move right" onSelect={() => run({ do: 'move a column', column: index, by: 1 })} />
      <RemoveExports column={column} />
      <MenuEntry words="Take it off the bench" grave onSelect={remove} />
    </Menu>
  );
}

function TrimEntry({ index, column, onChange }: { index: number; column: Column; onChange: (to: Column) => void }) {
  const { setTrimming } = useBench();
  const takeOff = () => {
    onChange({ ...column, trim: null });
    setTrimming(null);
  };
  const begin = () => {
    onChange({ ...column, trim: { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1] } });
    setTrimming(index);
  };
  if (column.trim) return <MenuEntry words="Take the trim off" onSelect={takeOff} />;
  return <MenuEntry words="Trim by slope, offset, power" onSelect={begin} />;
}

interface MoreProps {
  index: number;
  column: Column;
  item: Candidate | undefined;
  profile: Candidate | undefined;
}

/** Columns that follow from this one: the same look in a row of strengths, the same style from others. */
function MoreColumns({ index, column, item, profile }: MoreProps) {
  const { addColumns, withCandidates } = useBench();
  const alike = item ?? profile;
  return (
    <>
      {item && !item.fixed && (
        <MenuEntry
          words="A row of strengths"
          onSelect={() => addColumns(rowOfStrengths(column, item.most), index + 1)}
        />
      )}
      {alike && (
        <MenuEntry
          words="The same style from other sources"
          onSelect={() => withCandidates({ like: alike.itemId }, (list) => addColumns(list.map(columnFor), index + 1))}
        />
      )}
    </>
  );
}

function EncodingMenu({ column, onChange }: { column: Column; onChange: (to: Column) => void }) {
  return (
    <SubMenu title="Read its values as …">
      <MenuEntry words="the recorded encoding" onSelect={() => onChange(assuming(column, null))} />
      {otherEncodings.map((encoding) => (
        <MenuEntry
          key={encodingText(encoding)}
          words={encodingText(encoding)}
          onSelect={() => onChange(assuming(column, encoding))}
        />
      ))}
    </SubMenu>
  );
}

function RemoveExports({ column }: { column: Column }) {
  const { exports, may, run, action } = useBench();
  const { source } = column;
  if (source.from !== 'export' || !may.frames) return null;
  const { label } = source;
  const remove = async () => {
    for (const one of exports) if (isExport(source, one.label)) await call('DELETE /api/exports/:id', { id: one.id });
    run({ do: 'take off an export', label });
  };
  return (
    <MenuEntry
      words="Remove these exports from the studio"
      grave
      onSelect={() => void action.runAndRefresh(remove, `The exports of ${label} are gone`)}
    />
  );
}
