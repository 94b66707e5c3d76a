'use client';
/** A folder of photos that looks empty in an editor: why, and what would cure it. Photos are read here and not sent. */
import { must } from '@/core/must';
import { FolderSearch } from 'lucide-react';
import { useRef, useState, type DragEvent } from 'react';
import type { AnswerOf } from '@/core/api';
import { fromDrop, fromInput } from '../intake/model/collect';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { State } from '../kit/State';
import { readPhotos } from './photo-facts';

type Group = AnswerOf<'POST /api/gear/photos'>['groups'][number];
interface Result {
  groups: Group[];
  unread: number;
  n: number;
}

export function Photos() {
  const input = useRef<HTMLInputElement | null>(null);
  const folder = useRef<HTMLInputElement | null>(null);
  const [over, setOver] = useState(false);
  const [reading, setReading] = useState<{ done: number; n: number } | null>(null);
  const [result, setResult] = useState<Result | null>(null);
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const take = async (files: File[]) => {
    setProblem(null);
    setResult(null);
    setReading({ done: 0, n: files.length });
    try {
      const { said, unread } = await readPhotos(files, (done) => setReading({ done, n: files.length }));
      setResult({
        groups: said.length ? (await call('POST /api/gear/photos', { body: { photos: said } })).groups : [],
        unread,
        n: files.length,
      });
    } catch (error) {
      setProblem(problemOf(error));
    }
    setReading(null);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void fromDrop(event.dataTransfer.items, event.dataTransfer.files).then((arrivals) =>
      take(arrivals.flatMap((x) => x.files.map((f) => f.file))),
    );
  };
  const chosen = (e: { target: HTMLInputElement }) => {
    void take(fromInput(must(e.target.files)).flatMap((x) => x.files.map((f) => f.file)));
    e.target.value = '';
  };
  return (
    <>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={`flex flex-wrap items-center gap-x-5 gap-y-2 border border-dashed px-6 py-4 ${over ? 'border-verd bg-verd-wash' : 'border-line-strong bg-sheet'}`}
      >
        <FolderSearch aria-hidden size={24} strokeWidth={1.4} className="text-soft" />
        <div className="min-w-0">
          <p className="font-serif text-[16px]">Drop the folder that looks empty</p>
          <p className="text-soft">Its photos are read here for their camera; none is sent or kept.</p>
        </div>
        <button className="button ml-auto" onClick={() => folder.current?.click()}>
          Choose a folder
        </button>
        <button className="button" onClick={() => input.current?.click()}>
          Choose photos
        </button>
        <input
          ref={input}
          type="file"
          multiple
          className="sr-only"
          aria-label="Photos to explain"
          tabIndex={-1}
          onChange={chosen}
        />
        <input
          ref={(input) => {
            folder.current = input;
            input?.setAttribute('webkitdirectory', '');
          }}
          type="file"
          multiple
          className="sr-only"
          aria-label="Folder to explain"
          tabIndex={-1}
          onChange={chosen}
        />
      </div>
      <div role="status" className="mt-2">
        {reading && (
          <span className="text-soft">
            Read {reading.done} of {reading.n} files …
          </span>
        )}
        {result && (
          <span>
            {result.n - result.unread} of {result.n} files are photos that say what they are
            {result.unread > 0 &&
              `; ${result.unread} ${result.unread === 1 ? 'is' : 'are'} none, or of a kind that is not read here`}
            .
          </span>
        )}
      </div>
      <Notice problem={problem} className="mt-2" />
      {result &&
        result.groups.map((group) => (
          <section
            key={group.camera + group.kind}
            className="mt-3"
            aria-label={`${group.camera || 'No camera named'}, ${group.kind}`}
          >
            <h3 className="mb-0.5 text-[15px]">
              {group.camera || 'No camera named'}{' '}
              <span className="font-sans text-[12.5px] text-soft">
                {group.n.toLocaleString('en')} × {group.kind}
              </span>
            </h3>
            <table className="list" aria-label={`Editors and the ${group.camera || 'unnamed camera'}, ${group.kind}`}>
              <thead>
                <tr>
                  <th className="w-[150px]">Editor</th>
                  <th className="w-[110px]">Shows them</th>
                  <th>Because</th>
                </tr>
              </thead>
              <tbody>
                {group.answers.map((answer) => (
                  <tr key={answer.key}>
                    <td>{answer.title}</td>
                    <td>
                      <State of={answer.answer === 'unknown' ? 'not-said' : answer.answer} />
                    </td>
                    <td>
                      {answer.reason}
                      {answer.cures.map((character) => (
                        <span key={character} className="block text-[12.5px] text-soft">
                          {character}
                        </span>
                      ))}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
    </>
  );
}
