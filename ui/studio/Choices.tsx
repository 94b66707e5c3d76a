'use client';
/** What the house starts from, for a client or any, by camera, light and file kind. */
import Link from 'next/link';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
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
  /** a look that its preset calls, and that was made from it */ doubled: { id: string; title: string } | null;
  person: string | null;
}

export function Choices({ choices, may }: { choices: ChoiceOfHouse[]; may: boolean }) {
  const { problem, runAndRefresh } = useAction();
  const takeAway = (choice: ChoiceOfHouse) =>
    void runAndRefresh(() => call('DELETE /api/bench/choices/:n', { id: choice.id }));
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
          {choices.map((choice) => (
            <ChoiceRow key={choice.id} choice={choice} onTakeAway={may ? () => takeAway(choice) : null} />
          ))}
        </tbody>
      </table>
    </>
  );
}

interface RowProps {
  choice: ChoiceOfHouse;
  /** null where the person may not */ onTakeAway: (() => void) | null;
}

function ChoiceRow({ choice, onTakeAway }: RowProps) {
  const client = choice.client || 'any client';
  const about = `${client}, ${choice.camera || 'any camera'}, ${choice.light || 'any light'}`;
  return (
    <tr>
      <td>{client}</td>
      <td>{choice.camera || 'any'}</td>
      <td>{choice.light || 'any'}</td>
      <td>{choice.kind || 'any'}</td>
      <td>
        {choice.profileItem && (
          <Link className="block underline" href={`/items/${choice.profileItem}`}>
            {choice.profile}
          </Link>
        )}
        {choice.lookItem && (
          <>
            <Link className="underline" href={`/items/${choice.lookItem}`}>
              {choice.look}
            </Link>{' '}
            at {choice.strength} %
          </>
        )}
        {choice.doubled && (
          <span className="block text-[12px] text-ochre">
            It calls{' '}
            <Link className="underline" href={`/items/${choice.doubled.id}`}>
              {choice.doubled.title}
            </Link>
            , which was made from it: the effect acts twice. Choose the companion preset instead, which is made on that
            look’s page.
          </span>
        )}
      </td>
      <td className="text-soft">{choice.person}</td>
      {onTakeAway && (
        <td>
          <button className="button danger" aria-label={`Take away the choice for ${about}`} onClick={onTakeAway}>
            Take away
          </button>
        </td>
      )}
    </tr>
  );
}
