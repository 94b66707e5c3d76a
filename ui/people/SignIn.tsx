'use client';
import { useState, type FormEvent } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';

export function SignIn() {
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const formData = new FormData(event.currentTarget);
    setBusy(true);
    setProblem(null);
    try {
      await call('/api/session', 'POST', { email: formData.get('email'), password: formData.get('password') });
      location.assign('/shelves');
    } catch (value) {
      setProblem(problemOf(value));
      setBusy(false);
    }
  };
  return (
    <form onSubmit={(e) => void submit(e)} className="flex flex-col gap-3">
      <Notice problem={problem} />
      <label className="flex flex-col gap-1">
        E-mail address
        <input className="field" name="email" type="email" autoComplete="username" required autoFocus />
      </label>
      <label className="flex flex-col gap-1">
        Password
        <input className="field" name="password" type="password" autoComplete="current-password" required />
      </label>
      <button className="button main mt-1 justify-center" disabled={busy}>
        {busy ? 'Signing in' : 'Sign in'}
      </button>
    </form>
  );
}

export function Welcome() {
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const f = Object.fromEntries(new FormData(event.currentTarget)) as Record<string, string>;
    setBusy(true);
    setProblem(null);
    try {
      await call('/api/people', 'POST', f);
      await call('/api/session', 'POST', { email: f.email, password: f.password });
      location.assign('/shelves');
    } catch (value) {
      setProblem(problemOf(value));
      setBusy(false);
    }
  };
  return (
    <form onSubmit={(e) => void submit(e)} className="flex flex-col gap-3">
      <Notice problem={problem} />
      <label className="flex flex-col gap-1">
        Set-up code, printed where Etagere was started
        <input className="field font-mono" name="code" required autoFocus autoComplete="off" />
      </label>
      <label className="flex flex-col gap-1">
        Your name
        <input className="field" name="name" required autoComplete="name" />
      </label>
      <label className="flex flex-col gap-1">
        E-mail address
        <input className="field" name="email" type="email" required autoComplete="username" />
      </label>
      <label className="flex flex-col gap-1">
        Password, at least 10 characters
        <input className="field" name="password" type="password" required minLength={10} autoComplete="new-password" />
      </label>
      <button className="button main mt-1 justify-center" disabled={busy}>
        Begin as librarian
      </button>
    </form>
  );
}
