'use client';
/** What the house starts from, for a client or any, by camera, light and file kind. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export interface ChoiceOfHouse {
  id: number;
  client: string;
  camera: string;
  light: string;
  kind: string;
  strength: number;
  profile: string | null;
  profileItem: string | null;
  look: string | null;
  lookItem: string | null;
  person: string | null;
}

export function Choices({ choices, may }: { choices: ChoiceOfHouse[]; may: boolean }) {
  const router = useRouter();
  const [problem, setProblem] = useState<ProblemText | null>(null);
  if (!choices.length)
    return (
      <p className="border-t border-line py-3 text-soft">
        No house choice is made yet. Choose a look or a profile on the{' '}
        <Link className="underline" href="/bench">
          bench
        </Link>
        .
      </p>
    );
  return (
    <>
      <Notice problem={problem} className="mb-2" />
      <table className="list" aria-label="House choices">
        <thead>
          <tr>
            <th>For</th>
            <th>Camera</th>
            <th>Light</th>
            <th>Files</th>
            <th>We start from</th>
            <th>By</th>
            {may && (
              <th>
                <span className="sr-only">Take away</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {choices.map((choiceOfHouse) => (
            <tr key={choiceOfHouse.id}>
              <td>{choiceOfHouse.client || 'any client'}</td>
              <td>{choiceOfHouse.camera || 'any'}</td>
              <td>{choiceOfHouse.light || 'any'}</td>
              <td>{choiceOfHouse.kind || 'any'}</td>
              <td>
                {choiceOfHouse.profileItem && (
                  <Link className="block underline" href={`/items/${choiceOfHouse.profileItem}`}>
                    {choiceOfHouse.profile}
                  </Link>
                )}
                {choiceOfHouse.lookItem && (
                  <>
                    <Link className="underline" href={`/items/${choiceOfHouse.lookItem}`}>
                      {choiceOfHouse.look}
                    </Link>{' '}
                    at {choiceOfHouse.strength} %
                  </>
                )}
              </td>
              <td className="text-soft">{choiceOfHouse.person}</td>
              {may && (
                <td>
                  <button
                    className="button danger"
                    aria-label={`Take away the choice for ${choiceOfHouse.client || 'any client'}, ${choiceOfHouse.camera || 'any camera'}, ${choiceOfHouse.light || 'any light'}`}
                    onClick={() =>
                      void call('DELETE /api/bench/choices/:n', { id: choiceOfHouse.id })
                        .then(() => router.refresh())
                        .catch((e: unknown) => setProblem(problemOf(e)))
                    }
                  >
                    Take away
                  </button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
