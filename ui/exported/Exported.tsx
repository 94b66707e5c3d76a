'use client';
/** A preset against an editor's own export: without it and with it, there and here, and the difference. */
import { useMemo, useState } from 'react';
import type { PictureFigures } from '@/core/look/picture-difference';
import { FileButton } from '../kit/FileButton';
import { Notice } from '../kit/Notice';
import { useComparison, type Compared } from './compared';
import { Pixels } from './Pixels';

interface Props {
  version: string;
  title: string;
  /** in which the preset is */ editor: string;
  frames: readonly { id: string; name: string }[];
  /** titles of settings that are not rendered here */ notShown: readonly string[];
}

export function Exported({ version, title, editor, frames, notShown }: Props) {
  const [without, setWithout] = useState<File | null>(null);
  const [styled, setStyled] = useState<File | null>(null);
  const [frame, setFrame] = useState('');
  const asked = useMemo(
    () => (without && styled ? { version, without, with: styled, frame: frame || null } : null),
    [version, without, styled, frame],
  );
  const comparison = useComparison(asked);
  return (
    <>
      <ol className="mb-4 ml-5 max-w-[720px] list-decimal">
        <li>
          Open a photo in {editor}, reset all of its settings, and export it as JPEG or PNG in sRGB, without sharpening
          for output.
        </li>
        <li>Put {title} on, nothing else, and export it again in the same way.</li>
        <li>Give both here. They stay in this browser.</li>
      </ol>
      <div className="mb-4 flex flex-wrap items-end gap-x-6 gap-y-2">
        <Given words="The export without it" file={without} onFile={setWithout} />
        <Given words="The export with it" file={styled} onFile={setStyled} />
        <label className="flex flex-col gap-0.5 text-[12px] text-soft">
          Here it begins from
          <select
            className="field text-[13.5px] text-ink"
            value={frame}
            onChange={(event) => setFrame(event.target.value)}
          >
            <option value="">the export without it</option>
            {frames.map(({ id, name }) => (
              <option key={id} value={id}>
                the frame {name}, developed here
              </option>
            ))}
          </select>
        </label>
      </div>
      {comparison.is === 'working' && <p role="status">Comparing</p>}
      {comparison.is === 'failed' && (
        <Notice
          problem={{ code: 'exported', message: comparison.error, where: '', remedy: comparison.remedy }}
          className="max-w-[720px]"
        />
      )}
      {comparison.is === 'done' && (
        <Result compared={comparison.compared} editor={editor} title={title} notShown={notShown} />
      )}
    </>
  );
}

interface GivenProps {
  words: string;
  file: File | null;
  onFile: (file: File) => void;
}

function Given({ words, file, onFile }: GivenProps) {
  return (
    <div>
      <FileButton words={words} label={words} accept="image/jpeg,image/png" onFile={onFile} />
      <span className="mt-0.5 block text-[12px] text-soft [overflow-wrap:anywhere]">
        {file?.name ?? 'not given yet'}
      </span>
    </div>
  );
}

const wordsOf = ({ mean, p95, max }: PictureFigures): string =>
  `ΔE00 mean ${mean.toFixed(2)}, 95 % ${p95.toFixed(2)}, largest ${max.toFixed(1)}`;

interface ResultProps {
  compared: Compared;
  editor: string;
  title: string;
  notShown: readonly string[];
}

function Result({ compared: { width, height, pictures, figures }, editor, title, notShown }: ResultProps) {
  const facts = [
    ['With it, here against there', wordsOf(figures.with)],
    ...(figures.without ? [['Without it, here against there', wordsOf(figures.without)] as const] : []),
    [`What it does in ${editor}`, wordsOf(figures.effect)],
  ] as const;
  const picture = (words: string, pixels: ArrayBuffer) => (
    <Pixels key={words} words={words} pixels={pixels} width={width} height={height} />
  );
  return (
    <section aria-label="What came of it">
      <dl className="facts mb-4 max-w-[720px] border-b border-line">
        {facts.map(([name, words]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
      {notShown.length > 0 && (
        <p className="mb-3 max-w-[720px] text-soft">
          Not rendered here, and so part of the difference: {notShown.join(', ')}.
        </p>
      )}
      <div className="grid max-w-[1080px] grid-cols-2 gap-4 max-[760px]:grid-cols-1">
        {picture(`${editor}, without ${title}`, pictures.editorWithout)}
        {picture(`${editor}, with ${title}`, pictures.editorWith)}
        {picture(figures.without ? 'Here, without it' : 'Here, without it: the same export', pictures.hereWithout)}
        {picture('Here, with it', pictures.hereWith)}
        {picture('Difference of the two with it: white is ΔE00 10 or more', pictures.difference)}
      </div>
    </section>
  );
}
