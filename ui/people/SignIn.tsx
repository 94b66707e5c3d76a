'use client';
/** Signing in. */
import { peopleEndpoints } from '@/core/api/people';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { useSchemaForm } from '../kit/form';
import { Notice } from '../kit/Notice';

interface Credentials {
  email: string;
  password: string;
}

/** @param to a page of ours, to go on to */
export function SignIn({ to }: { to: string }) {
  const { busy, problem, run } = useAction();
  const form = useSchemaForm<Credentials>(peopleEndpoints['POST /api/session'].body, { email: '', password: '' });
  const enter = (body: Credentials) =>
    run(async () => {
      await call('POST /api/session', { body });
      location.assign(to);
    });
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void form.handleSubmit(enter)(event)}>
      <Notice problem={problem} />
      <label className="flex flex-col gap-1">
        E-mail address
        <input className="field" type="email" autoComplete="username" required autoFocus {...form.register('email')} />
      </label>
      <label className="flex flex-col gap-1">
        Password
        <input
          className="field"
          type="password"
          autoComplete="current-password"
          required
          {...form.register('password')}
        />
      </label>
      <button className="button main mt-1 justify-center" disabled={busy}>
        {busy ? 'Signing in' : 'Sign in'}
      </button>
    </form>
  );
}
