'use client';
/** What the matrix is of: the everyday list, a shelf or a pack; and whether those alone are shown that are due somewhere. */
import { useRouter } from 'next/navigation';

interface Props {
  chosen: { shelf: string; pack: string; due: boolean };
  shelves: readonly { id: string; title: string }[];
  packs: readonly { id: string; title: string }[];
}

const addressOf = (of: string, due: boolean): string => {
  const asked = new URLSearchParams(of);
  if (due) asked.set('due', '1');
  const query = asked.toString();
  return query ? `/stations/matrix?${query}` : '/stations/matrix';
};

export function MatrixChoice({ chosen: { shelf, pack, due }, shelves, packs }: Props) {
  const router = useRouter();
  const packOf = pack ? `pack=${pack}` : '';
  const of = shelf ? `shelf=${shelf}` : packOf;
  return (
    <div className="mb-3 flex flex-wrap items-center gap-4">
      <span className="flex items-center gap-2">
        <span aria-hidden>Of</span>
        <select
          className="field"
          aria-label="What it is of"
          value={of}
          onChange={(event) => router.push(addressOf(event.target.value, due))}
        >
          <option value="">the everyday list</option>
          <optgroup label="Shelves">
            {shelves.map(({ id, title }) => (
              <option key={id} value={`shelf=${id}`}>
                {title}
              </option>
            ))}
          </optgroup>
          <optgroup label="Packs">
            {packs.map(({ id, title }) => (
              <option key={id} value={`pack=${id}`}>
                {title}
              </option>
            ))}
          </optgroup>
        </select>
      </span>
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={due} onChange={(event) => router.push(addressOf(of, event.target.checked))} />
        only what is missing or due somewhere
      </label>
    </div>
  );
}
