'use client';
/**
 * The mapping workshop: sample presets of an editor, what each of their properties stands for, how that looks, whether it
 * can be written again; then it is proposed as the editor's descriptor.
 */
import Link from 'next/link';
import { useState } from 'react';
import type { Descriptor } from '@/core/editor/descriptor';
import { Notice } from '../kit/Notice';
import { SectionHead } from '../kit/Section';
import { Checks } from './Checks';
import { EmptyPreset } from './EmptyPreset';
import { useWorkshop } from './hooks/workshop';
import { draftKey } from './model/keep';
import { LivePicture, type FrameToShow } from './LivePicture';
import { MappingText } from './MappingText';
import { NewEditor } from './NewEditor';
import { Properties } from './Properties';
import { Propose } from './Propose';
import { Samples, type HeldSample } from './Samples';

interface Props {
  /** the id of whoever works here */ person: string;
  /** "id@version"; '' for an editor that nobody has described */ editor: string;
  known: Descriptor | null;
  /** the editors that are described already, as "id@version", with their titles */ described: ReadonlyMap<
    string,
    string
  >;
  /** presets in its language that the library holds */ held: HeldSample[];
  frames: FrameToShow[];
}

export function Workshop({ person, editor, known, described, held, frames }: Props) {
  const workshop = useWorkshop(draftKey(person, editor), known);
  const { draft, worked, wasKept, isBegun, isOvertaken, beginAnew } = workshop;
  const { descriptor } = worked;
  const [proposed, setProposed] = useState('');
  const propose = (title: string) => {
    setProposed(title);
    beginAnew();
  };
  return (
    <>
      {proposed && (
        <p role="status" className="mb-4">
          {proposed} is proposed.{' '}
          <Link className="underline" href="/studio">
            The lead decides on it in Studio
          </Link>
          ; presets in its language are read anew then.
        </p>
      )}
      {isBegun && (
        <p className="mb-4 flex items-center gap-3 text-soft">
          {wasKept && 'What you were working on here is back.'}
          <button className="button" onClick={beginAnew}>
            Begin anew
          </button>
        </p>
      )}
      {isBegun && isOvertaken && (
        <p role="alert" className="mb-4 max-w-[760px] text-ochre">
          Somebody has described this editor anew since you began: proposing this draft would take that back. Begin
          anew, and take your samples again.
        </p>
      )}
      <SectionHead>Samples</SectionHead>
      <Samples samples={draft.samples} held={held} onAdd={workshop.add} onDrop={workshop.drop} />
      <Notice problem={worked.problem} className="mt-3 max-w-[760px]" />
      {worked.read.length > 0 && !descriptor && (
        <>
          <SectionHead>The editor</SectionHead>
          <NewEditor
            samples={draft.samples}
            marks={worked.marks}
            described={described}
            onDescribe={workshop.describe}
          />
        </>
      )}
      {descriptor && worked.read.length > 0 && (
        <>
          <div className="grid grid-cols-[minmax(0,1fr)_320px] gap-8 max-[1100px]:grid-cols-[minmax(0,1fr)]">
            <div>
              <SectionHead>What its properties stand for</SectionHead>
              <Properties
                properties={worked.properties}
                samples={worked.read.length}
                descriptor={descriptor}
                onMean={workshop.mean}
              />
            </div>
            <LivePicture checked={worked.checked} frames={frames} />
          </div>
          <SectionHead>Read and written again</SectionHead>
          <EmptyPreset draft={draft} descriptor={descriptor} onChoose={workshop.emptyFrom} />
          <Checks checked={worked.checked} unmapped={worked.unmapped} canWrite={!!descriptor.presets?.template} />
          <MappingText key={JSON.stringify(draft.descriptor)} descriptor={descriptor} onDescribe={workshop.describe} />
          <SectionHead>Propose it</SectionHead>
          <Propose descriptor={descriptor} isKnown={!!known} onProposed={() => propose(descriptor.title)} />
        </>
      )}
    </>
  );
}
