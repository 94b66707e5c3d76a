'use client';
/** The dialogs of the bench: one at a time. */
import { useRouter } from 'next/navigation';
import { whiteBalanceText } from '@/core/bench/white-balance';
import { bodyOf } from '@/core/frame/body';
import { call } from '../kit/call';
import { ItemPicker } from '../kit/ItemPicker';
import { NameDialog } from '../kit/NameDialog';
import { useBench, type Asking } from './bench-context';
import { ChartDialog } from './ChartDialog';
import { ExportDialog } from './ExportDialog';
import { JudgeDialog } from './JudgeDialog';
import { KeepColumn } from './KeepColumn';
import { addressOf } from './model/address';
import { columnFor, emptyColumn, isAnchored, isExport, withCandidate } from './model/column';
import { labelsOf } from './model/frame';
import { nameOf } from './model/names';

type About<W extends Asking['what']> = Extract<Asking, { what: W }>;

export function BenchDialogs({ asking }: { asking: Asking }) {
  switch (asking.what) {
    case 'find a candidate':
      return <FindCandidate />;
    case 'find a layer':
      return <FindLayer asking={asking} />;
    case 'judge':
      return <Judge asking={asking} />;
    case 'bring an export':
      return <BringExport />;
    case 'chart':
      return <ChartOfRow asking={asking} />;
    case 'save the bench':
      return <SaveBench />;
    case 'save the set':
      return <SaveSet />;
    case 'keep the column':
      return <KeepOfColumn asking={asking} />;
    case 'keep the anchored profile':
      return <KeepAnchored asking={asking} />;
  }
}

/** Closes the dialog, says what was done, and fetches the page anew where that shows something else now. */
function useDone(): { close: () => void; done: (words: string) => void } {
  const { ask, action } = useBench();
  const router = useRouter();
  const close = () => ask(null);
  return {
    close,
    done: (words) => {
      close();
      action.say(words);
      router.refresh();
    },
  };
}

function FindCandidate() {
  const { ask, addColumns, withCandidates } = useBench();
  return (
    <ItemPicker
      title="Candidates for the bench"
      onClose={() => ask(null)}
      onPick={() => {}}
      onPickMany={(items) => {
        ask(null);
        const ids = items.map((item) => item.id);
        withCandidates({ item: ids.join('|') }, (list) =>
          addColumns(ids.flatMap((id) => list.find((one) => one.itemId === id) ?? []).map(columnFor)),
        );
      }}
    />
  );
}

function FindLayer({ asking }: { asking: About<'find a layer'> }) {
  const { ask, run, state, withCandidates } = useBench();
  const column = state.columns[asking.column];
  return (
    <ItemPicker
      title="A look to lay over it"
      onClose={() => ask(null)}
      onPick={(item) => {
        ask(null);
        withCandidates({ item: item.id }, ([candidate]) => {
          if (column && candidate)
            run({ do: 'change a column', column: asking.column, to: withCandidate(column, candidate) });
        });
      }}
    />
  );
}

function Judge({ asking }: { asking: About<'judge'> }) {
  const { state, rows, candidates, may, nameAt, run } = useBench();
  const { close, done } = useDone();
  const column = state.columns[asking.column];
  if (!column) return null;
  const blind = state.blind > 0;
  const reveal = (words: string) => {
    if (blind) run({ do: 'shuffle', seed: 0 });
    done(blind ? `${nameAt(asking.column)} was ${nameOf(column, candidates)}. ${words}` : words);
  };
  return (
    <JudgeDialog
      column={column}
      name={nameAt(asking.column)}
      blind={blind}
      candidates={candidates}
      frames={rows.map(({ at }) => ({ id: at.id, name: at.name, camera: bodyOf(at), light: at.light }))}
      may={may}
      onClose={close}
      onDone={reveal}
    />
  );
}

function BringExport() {
  const { rows, exports, state, addColumns } = useBench();
  const { close, done } = useDone();
  return (
    <ExportDialog
      frames={rows.map(({ at }) => ({ id: at.id, name: at.name }))}
      labels={labelsOf(exports)}
      onClose={close}
      onDone={(label) => {
        done('');
        if (!state.columns.some((column) => isExport(column.source, label)))
          addColumns([{ ...emptyColumn, source: { from: 'export', label } }]);
      }}
    />
  );
}

function ChartOfRow({ asking }: { asking: About<'chart'> }) {
  const { rows, state, pool, charts, may, nameAt, cellFor } = useBench();
  const { close, done } = useDone();
  const row = rows[asking.row];
  if (!row) return null;
  return (
    <ChartDialog
      pool={pool}
      frame={row.at}
      charts={charts}
      columns={state.columns.map((column, i) => ({ name: nameAt(i), spec: cellFor(row, column) }))}
      may={may.frames}
      onClose={close}
      onSaved={done}
    />
  );
}

function SaveBench() {
  const { state, title } = useBench();
  const { close, done } = useDone();
  return (
    <NameDialog
      title="Save this bench under a name"
      action="Save"
      noNote
      name={title === 'Bench' ? '' : title}
      onClose={close}
      onSave={async (name) => {
        await call('POST /api/bench/saved', { body: { name, state: addressOf(state), shared: true } });
        done(`${name} is saved`);
      }}
    />
  );
}

function SaveSet() {
  const { rows } = useBench();
  const { close, done } = useDone();
  return (
    <NameDialog
      title="A set of these frames, which should look alike"
      action="Save the set"
      noNote
      onClose={close}
      onSave={async (name) => {
        await call('POST /api/bench/sets', { body: { name, frames: rows.map((row) => row.frame) } });
        done(`${name} is a frame set now`);
      }}
    />
  );
}

function KeepOfColumn({ asking }: { asking: About<'keep the column'> }) {
  const { state, nameAt, ask } = useBench();
  const column = state.columns[asking.column];
  if (!column) return null;
  return <KeepColumn column={column} name={nameAt(asking.column)} onClose={() => ask(null)} />;
}

function KeepAnchored({ asking }: { asking: About<'keep the anchored profile'> }) {
  const { rows, state, candidates } = useBench();
  const { close, done } = useDone();
  const row = rows[asking.row];
  const source = state.columns.find(isAnchored)?.source;
  if (!row || source?.from !== 'profile') return null;
  const body = bodyOf(row.at);
  return (
    <NameDialog
      title="Keep the anchored profile"
      action="Save"
      noNote
      about={`Its scope comes from this frame: the ${body} alone. It can be widened on its page.`}
      name={`${candidates.get(source.version)?.title ?? 'Profile'} for ${body}`}
      onClose={close}
      onSave={async (name) => {
        await call('POST /api/bench/anchor', {
          body: {
            version: source.version,
            frame: row.frame,
            white: whiteBalanceText(row.white),
            ...(source.anchor === null ? {} : { kelvin: source.anchor }),
            title: name,
          },
        });
        done(`${name} stands on the shelf of its source, as a draft`);
      }}
    />
  );
}
