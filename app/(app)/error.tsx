'use client';

export default function Fault({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <div role="alert" className="max-w-[560px] p-8">
      <h1 className="mb-2 text-[24px]">This page could not be made</h1>
      <p className="mb-1">Something went wrong that is not your doing. Nothing that was confirmed is lost.</p>
      <p className="mb-4 text-soft">
        Incident {error.digest ?? 'without number'}. Try again; if it stays so, tell the people who look after Etagere
        this number.
      </p>
      <button className="button" onClick={reset}>
        Try again
      </button>
    </div>
  );
}
