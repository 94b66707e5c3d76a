/** Stations, and how each of their editors stands. */
import { ListTitle } from '../kit/ListTitle';
import { State } from '../kit/State';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';
import { systemNames } from './model/systems';

interface EditorShown {
  editor: string;
  version: string;
  title: string;
  state: string;
  changed: number;
  waiting: number;
  placed: number;
  listed: number;
  listedAt: string | null;
  running: boolean;
}
interface StationShown {
  station: {
    id: string;
    name: string;
    system: keyof typeof systemNames;
    person: string;
    groups: readonly string[];
    enrolled: boolean;
    last_report_at: Date | null;
  };
  /** in whose reader a card is */ host: string | null;
  editors: readonly EditorShown[];
  silent: boolean;
  due: number;
}

function placedWords({ waiting, placed }: { waiting: number; placed: number }): string {
  if (waiting) return `${waiting} not listed yet`;
  return placed ? `${placed} placed` : '';
}

function EditorCell({ state }: { state: EditorShown | undefined }) {
  if (!state)
    return (
      <span className="text-soft">
        –<span className="sr-only">not installed</span>
      </span>
    );
  return (
    <>
      <State of={state.state} word={state.state === 'changed' ? `${state.changed} changed there` : undefined} />
      <span className="block text-[12px] text-soft">
        {placedWords(state)}
        {state.listedAt ? `${state.placed ? ', ' : ''}lists ${state.listed}` : ''}
        {state.running ? ', running' : ''}
      </span>
    </>
  );
}

function whereWords({ station, host }: StationShown): string {
  if (host) return `in the reader of ${host}`;
  return [systemNames[station.system], station.person].filter(Boolean).join(', ');
}

function Row({ one, editors }: { one: StationShown; editors: readonly string[] }) {
  const { station, host, silent, due } = one;
  return (
    <tr className="hover:bg-sheet">
      <td>
        <ListTitle href={`/stations/${station.id}`}>{station.name}</ListTitle>
        <span className="block text-[12px] text-soft">{whereWords(one)}</span>
        {station.groups.length > 0 && (
          <span className="block text-[12px] text-soft [overflow-wrap:anywhere]">{station.groups.join(', ')}</span>
        )}
        {due > 0 && <span className="block text-[12px] text-ochre">{counted(due, 'file')} due by standing orders</span>}
      </td>
      {editors.map((id) => (
        <td key={id}>
          <EditorCell state={one.editors.find(({ editor, version }) => `${editor}@${version}` === id)} />
        </td>
      ))}
      <td className={silent ? 'font-semibold text-ochre' : 'text-soft'}>
        {station.enrolled || host ? (
          <Ago at={station.last_report_at?.toISOString() ?? null} never="not reported yet" />
        ) : (
          'not enrolled yet'
        )}
      </td>
    </tr>
  );
}

export function FleetTable({ stations }: { stations: readonly StationShown[] }) {
  const titles = new Map(
    stations.flatMap(({ editors }) => editors.map(({ editor, version, title }) => [`${editor}@${version}`, title])),
  );
  const editors = [...titles].sort(([, a], [, b]) => a.localeCompare(b));
  return (
    <table className="list min-w-[760px]">
      <thead>
        <tr>
          <th>Station</th>
          {editors.map(([id, title]) => (
            <th key={id}>{title}</th>
          ))}
          <th>Last report</th>
        </tr>
      </thead>
      <tbody>
        {stations.map((one) => (
          <Row key={one.station.id} one={one} editors={editors.map(([id]) => id)} />
        ))}
      </tbody>
    </table>
  );
}
