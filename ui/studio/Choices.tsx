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
          {choices.map((c) => (
            <tr key={c.id}>
              <td>{c.client || 'any client'}</td>
              <td>{c.camera || 'any'}</td>
              <td>{c.light || 'any'}</td>
              <td>{c.kind || 'any'}</td>
              <td>
                {c.profileItem && (
                  <Link className="block underline" href={`/items/${c.profileItem}`}>
                    {c.profile}
                  </Link>
                )}
                {c.lookItem && (
                  <>
                    <Link className="underline" href={`/items/${c.lookItem}`}>
                      {c.look}
                    </Link>{' '}
                    at {c.strength} %
                  </>
                )}
              </td>
              <td className="text-soft">{c.person}</td>
              {may && (
                <td>
                  <button
                    className="button danger"
                    aria-label={`Take away the choice for ${c.client || 'any client'}, ${c.camera || 'any camera'}, ${c.light || 'any light'}`}
                    onClick={() =>
                      void call(`/api/bench/choices/${c.id}`, 'DELETE')
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
