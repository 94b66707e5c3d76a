import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="grid min-h-screen place-items-center">
      <div className="text-center">
        <h1 className="mb-2 text-[26px]">Nothing stands here</h1>
        <p className="mb-4 text-soft">The page may have been archived, or the address is not quite right.</p>
        <Link className="button" href="/shelves">
          To the shelves
        </Link>
      </div>
    </main>
  );
}
