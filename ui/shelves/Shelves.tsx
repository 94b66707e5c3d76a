'use client';
/** Shelves as rows of spines on a ledge, or as a dense table. Arrows walk, Enter opens, R sets the ribbon, X chooses, Alt and arrows move. */
import { useRef } from 'react';
import { Notice } from '../kit/Notice';
import { fetchedWhenShown } from '../kit/fetched';
import { Boards } from './Boards';
import { FilledShelves } from './FilledShelves';
import { useShelvesParts } from './hooks/shelves';
import { useColumns } from './LongShelf';
import { FirstSteps } from './FirstSteps';
import { LongList } from './LongList';
import { NarrowDown } from './NarrowDown';
import { NothingFound } from './NothingFound';
import { ShelvesHead } from './ShelvesHead';
import { ShelvesValue, type ShelvesProps } from './shelves-context';
import { SpineInHand } from './SpineInHand';

/** Fetched when they are asked for: most visits choose nothing and open no dialog. */
const ChosenBar = fetchedWhenShown(() => import('./ChosenBar').then((module) => module.ChosenBar));
const ShelvesDialogs = fetchedWhenShown(() => import('./ShelvesDialogs').then((module) => module.ShelvesDialogs));

/** How many looks and presets are fetched ahead of being pointed at. */
const AHEAD = 60;

export function Shelves(props: ShelvesProps) {
  const { asking, ...value } = useShelvesParts(props);
  const page = useRef<HTMLDivElement>(null);
  const columns = useColumns(page);
  const { action, current, frame, may, result } = value;
  return (
    <ShelvesValue.Provider value={value}>
      <div className="grid grid-cols-[minmax(0,1fr)_292px] max-[1000px]:grid-cols-[minmax(0,1fr)]">
        <div ref={page} className="min-w-0 px-6 pb-16 pt-[18px]">
          <ShelvesHead />
          {props.steps.length > 0 && !value.filtered && !result.flat && <FirstSteps steps={props.steps} />}
          <NarrowDown />
          <p role="status" className="sr-only">
            {action.said}
          </p>
          <Notice problem={action.problem} className="mb-3" />
          {result.flat ? (
            <LongList columns={columns} />
          ) : (
            <>
              <FilledShelves />
              <Boards columns={columns} />
            </>
          )}
          <NothingFound />
          {value.selection.size > 0 && <ChosenBar />}
        </div>
        <SpineInHand
          spine={current}
          frame={frame}
          frames={props.frames}
          onFrame={(id) => value.go({ frame: id })}
          mine={!!current && value.hasRibbon(current)}
          chosen={!!current && value.selection.has(current.id)}
          onRibbon={() => current && value.setRibbon(current)}
          onChoose={() => current && value.toggle(current)}
          may={may.edit || may.rollOut}
          ahead={value.inView
            .filter((spine) => spine.kind === 'look' || spine.kind === 'preset')
            .slice(0, AHEAD)
            .map((spine) => spine.versionId)}
        />
        {asking && <ShelvesDialogs asking={asking} />}
      </div>
    </ShelvesValue.Provider>
  );
}
