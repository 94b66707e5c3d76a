'use client';
/** What lies on the bench in words, what else can be laid on it, and how it is looked at. */
import { counted } from '../kit/words';
import { useBench } from './bench-context';
import { columnFor, emptyColumn, type Source } from './model/column';
import { camerasOf, labelsOf } from './model/frame';
import { grouped } from './model/row-groups';
import { MOST_ROWS } from './model/state';
import { CandidatesMenu } from './CandidatesMenu';
import { FramesMenu } from './FramesMenu';
import { SavedMenu } from './SavedMenu';

export function Toolbar() {
  const { title } = useBench();
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2 print:hidden">
      <h1 className="mr-1 whitespace-nowrap text-[26px] leading-tight">{title}</h1>
      <Summary />
      <Frames />
      <Candidates />
      <Switches />
      <button className="button" onClick={() => print()}>
        Print
      </button>
      <Saved />
    </div>
  );
}

function Summary() {
  const { rows } = useBench();
  const cameras = camerasOf(rows.map((row) => row.at));
  const lights = new Set(rows.map((row) => row.at.light)).size;
  const words = [counted(rows.length, 'frame'), ...cameras, counted(lights, 'light')].join(', ');
  return <p className="min-w-0 flex-1 truncate text-soft">{rows.length ? words : ''}</p>;
}

function Frames() {
  const { frames, sets, rows, run } = useBench();
  return (
    <FramesMenu
      frames={frames}
      sets={sets}
      full={rows.length >= MOST_ROWS}
      isLaid={(id) => rows.some((row) => row.frame === id)}
      onSet={(list) => {
        const known = list.flatMap((id) => frames.find((frame) => frame.id === id) ?? []);
        run({ do: 'lay only these frames', frames: grouped(known).map((frame) => frame.id) });
      }}
      onFrame={(frame) => run({ do: 'add a row', frame })}
    />
  );
}

function Candidates() {
  const { shelves, exports, rows, may, ask, addColumns, withCandidates } = useBench();
  const frames = rows.map((row) => row.at).filter((frame) => frame.camera);
  // profiles are found by the model's name, and by that of a converted body
  const cameras = [...new Set([...frames.map((frame) => frame.camera), ...camerasOf(frames)])];
  const addSource = (source: Source) => addColumns([{ ...emptyColumn, source }]);
  return (
    <CandidatesMenu
      shelves={shelves}
      labels={labelsOf(exports)}
      hasCameras={cameras.length > 0}
      mayBring={may.frames && rows.length > 0}
      onFind={() => ask({ what: 'find a candidate' })}
      onProfiles={() => withCandidates({ cameras: cameras.join('|') }, (list) => addColumns(list.map(columnFor)))}
      onSource={addSource}
      onShelf={(shelf) => withCandidates({ shelf }, (list) => addColumns(list.map(columnFor)))}
      onBring={() => ask({ what: 'bring an export' })}
    />
  );
}

function Switches() {
  const { state, run, ranging, setRanging } = useBench();
  const fewColumns = state.columns.length < 3;
  return (
    <>
      <button className="button" aria-pressed={state.difference} onClick={() => run({ do: 'switch differences' })}>
        {state.difference ? 'Pictures' : 'Differences'}
      </button>
      <button
        className="button"
        aria-pressed={state.mark}
        disabled={state.difference}
        title="Mark what this display cannot show"
        onClick={() => run({ do: 'switch marks' })}
      >
        Gamut
      </button>
      <button className="button" aria-pressed={ranging} onClick={() => setRanging(!ranging)}>
        Range
      </button>
      <button
        className="button"
        aria-pressed={state.blind > 0}
        disabled={fewColumns}
        title={fewColumns ? 'Blind needs two candidates beside the reference' : undefined}
        onClick={() => run({ do: 'shuffle', seed: 1 + Math.floor(Math.random() * 1e6) })}
      >
        {state.blind ? 'Reveal' : 'Blind'}
      </button>
    </>
  );
}

function Saved() {
  const { saved, rows, may, ask, openAddress } = useBench();
  return (
    <SavedMenu
      saved={saved}
      hasRows={rows.length > 0}
      maySaveSet={may.frames}
      onSave={() => ask({ what: 'save the bench' })}
      onSaveSet={() => ask({ what: 'save the set' })}
      onOpen={openAddress}
    />
  );
}
