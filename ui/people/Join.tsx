'use client';
/** Choosing a password, by whoever was given a link. */
import { peopleEndpoints } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';

interface Chosen {
  token: string;
  password: string;
}

export function Join({ token }: { token: string }) {
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<Chosen>(peopleEndpoints['POST /api/join'].body, { token, password: '' });
  const join = (body: Chosen) =>
    run(async () => {
      await call('POST /api/join', { body });
      location.assign('/shelves');
    });
  return (
    <form noValidate className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(join)(event)}>
      <Notice problem={problem} />
      <Field label="Password, at least 10 characters" problem={problemWith(form, 'password')}>
        {(field) => (
          <input {...field} type="password" autoComplete="new-password" autoFocus {...form.register('password')} />
        )}
      </Field>
      <button className="button main mt-1 justify-center" disabled={busy}>
        {busy ? 'Signing in' : 'Set the password and sign in'}
      </button>
    </form>
  );
}
