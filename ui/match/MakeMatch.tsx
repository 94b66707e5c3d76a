'use client';
/** Keeps a camera match as a look. */
import { useRouter } from 'next/navigation';
import type { BodyOf } from '@/core/api';
import { newMatch } from '@/core/api/camera-match';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';
import { PointsOptions } from '../kit/PointsOptions';

type Fields = Required<BodyOf<'POST /api/camera-match'>>;

interface Props {
  from: string;
  to: string;
  title: string;
  /** of the frame that is changed; '' where its file does not say */ camera: string;
  shelves: readonly { id: string; name: string }[];
}

export function MakeMatch({ from, to, title, camera, shelves }: Props) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<Fields>(newMatch, {
    from,
    to,
    title,
    shelf: shelves[0]?.id ?? '',
    size: 33,
    limit: camera !== '',
  });
  const make = (body: Fields) =>
    run(async () => {
      const made = await call('POST /api/camera-match', { body });
      router.push(`/items/${made.itemId}`);
    });
  return (
    <form
      noValidate
      aria-label="Make the look"
      className="flex flex-col gap-3"
      onSubmit={(event) => void form.handleSubmit(make)(event)}
    >
      <Field label="Title of the look" problem={problemWith(form, 'title')}>
        {(attributes) => <input {...attributes} {...form.register('title')} />}
      </Field>
      <Field label="On the shelf" problem={problemWith(form, 'shelf')}>
        {(attributes) => (
          <select {...attributes} {...form.register('shelf')}>
            {shelves.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Points an axis" problem={problemWith(form, 'size')}>
        {(attributes) => (
          <select {...attributes} {...form.register('size', { valueAsNumber: true })}>
            <PointsOptions />
          </select>
        )}
      </Field>
      {camera && (
        <label className="flex items-baseline gap-2">
          <input type="checkbox" {...form.register('limit')} />
          <span>Only for pictures of the {camera}</span>
        </label>
      )}
      <Notice problem={problem} />
      <button className="button main self-start" disabled={busy}>
        Make the look
      </button>
    </form>
  );
}
