'use client';
/** What a preset refers to by name: which item is meant, and where nobody knows, the question. */
import Link from 'next/link';
import type { AnswerOf } from '@/core/api';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

export type Reference = AnswerOf<'GET /api/versions/:id/references'>['references'][number];

const kindWords = { look: 'Look', 'camera-profile': 'Camera profile' } as const;

interface Props {
  versionId: string;
  references: readonly Reference[];
  mayEdit: boolean;
}

export function References({ versionId, references, mayEdit }: Props) {
  if (!references.length) return null;
  return (
    <section className="mb-4">
      <h3 className="mb-1 text-[15px]">Refers to</h3>
      <ul className="border-t border-line">
        {references.map((reference) => (
          <li key={reference.kind} className="border-b border-line py-1.5">
            <span className="text-soft">{kindWords[reference.kind]}</span> “{reference.name}”
            <Meaning versionId={versionId} reference={reference} mayEdit={mayEdit} />
          </li>
        ))}
      </ul>
    </section>
  );
}

interface MeaningProps {
  versionId: string;
  reference: Reference;
  mayEdit: boolean;
}

function Meaning({ versionId, reference, mayEdit }: MeaningProps) {
  const { item, name, state } = reference;
  if (item)
    return (
      <span className="block text-[12px]">
        is{' '}
        <Link prefetch={false} className="underline" href={`/items/${item.id}`}>
          {item.title}
        </Link>
        {item.title !== name && ', by another name now'}
        {reference.twice && (
          <span className="block text-ochre">
            It was made from this preset: with both on, the effect acts twice. A companion preset calls the look and
            touches nothing else; it is made on{' '}
            <Link prefetch={false} className="underline" href={`/items/${item.id}`}>
              the look’s page
            </Link>
            .
          </span>
        )}
        {state === 'archived' && <span className="text-ochre">, which is in the archive</span>}
      </span>
    );
  if (state === 'missing')
    return (
      <span className="block text-[12px] text-ochre">
        No item of this name is held: the preset is shown without it. It is found by itself once one is taken in.
      </span>
    );
  return <Question versionId={versionId} reference={reference} mayEdit={mayEdit} />;
}

function Question({ versionId, reference: { kind, meant }, mayEdit }: MeaningProps) {
  const { busy, problem, runAndRefresh } = useAction();
  const say = (itemId: string) =>
    runAndRefresh(() => call('POST /api/versions/:id/references', { id: versionId, body: { kind, itemId } }));
  return (
    <div className="text-[12px]">
      <p className="text-ochre">
        Several items have this name{mayEdit ? '. Which is meant?' : '; nobody has said which.'}
      </p>
      {meant.map(({ id, title, supplier }) => (
        <p key={id} className="mt-1 flex items-baseline justify-between gap-2">
          <Link prefetch={false} className="min-w-0 underline" href={`/items/${id}`}>
            {title}
            {supplier && `, from ${supplier}`}
          </Link>
          {mayEdit && (
            <button
              className="button !h-[24px]"
              aria-label={`This one: ${title}${supplier && ` from ${supplier}`}`}
              disabled={busy}
              onClick={() => void say(id)}
            >
              This one
            </button>
          )}
        </p>
      ))}
      <Notice problem={problem} className="mt-2" />
    </div>
  );
}
