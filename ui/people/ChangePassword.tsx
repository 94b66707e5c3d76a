'use client';
/** One's own password; every other session ends with the old one. */
import { peopleEndpoints } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Field } from '../kit/Field';
import { problemWith, useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';

interface Passwords {
  current: string;
  password: string;
}

export function ChangePassword() {
  const { busy, problem, said, runAndRefresh } = useAction();
  const form = useSchemaForm<Passwords>(peopleEndpoints['POST /api/password'].body, { current: '', password: '' });
  const change = async (passwords: Passwords) => {
    const well = await runAndRefresh(
      () => call('POST /api/password', { body: passwords }),
      'It is changed; you are signed out everywhere else.',
    );
    if (well) form.reset();
  };
  return (
    <form
      noValidate
      className="flex max-w-[360px] flex-col gap-3"
      onSubmit={(event) => void form.handleSubmit(change)(event)}
    >
      <Field label="Password now" problem={problemWith(form, 'current')}>
        {(field) => <input {...field} type="password" autoComplete="current-password" {...form.register('current')} />}
      </Field>
      <Field label="New password, at least 10 characters" problem={problemWith(form, 'password')}>
        {(field) => <input {...field} type="password" autoComplete="new-password" {...form.register('password')} />}
      </Field>
      <Notice problem={problem} />
      <div className="flex items-center gap-3">
        <button className="button main" disabled={busy}>
          Change the password
        </button>
        <span role="status" className="text-soft">
          {said}
        </span>
      </div>
    </form>
  );
}
