'use client';
/** Where a session has ended under a page that is being worked on, the password is asked for over it, and nothing is lost. */
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { setDoorkeeper } from '../kit/call';
import { fetchedWhenShown } from '../kit/fetched';

/** Fetched when it is asked for, with what checks forms: no screen carries it before. */
const PasswordDialog = fetchedWhenShown(() => import('./PasswordDialog').then((module) => module.PasswordDialog));

interface Props {
  name: string;
  email: string;
}

export function SignInAgain({ name, email }: Props) {
  const router = useRouter();
  const [asked, setAsked] = useState(false);
  /** calls that wait for the answer */ const waiting = useRef<((well: boolean) => void)[]>([]);
  useEffect(() => {
    setDoorkeeper(
      () =>
        new Promise((done) => {
          waiting.current.push(done);
          setAsked(true);
        }),
    );
    return () => setDoorkeeper(null);
  }, []);
  const answer = (well: boolean) => {
    setAsked(false);
    for (const done of waiting.current.splice(0)) done(well);
    if (well) router.refresh();
  };
  if (!asked) return null;
  return <PasswordDialog name={name} email={email} onAnswer={answer} />;
}
