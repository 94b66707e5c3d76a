'use client';
/** Does what a finding's remedy says, or leads to where it is done. Nothing stands where only people can help. */
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import type { AnswerOf } from '@/core/api';
import type { ForetoldAt } from '@/core/api/items';
import type { Cure } from '@/core/records/foretell';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

/** What whoever looks at it may do. */
export interface MayCure {
  plan: boolean;
  approve: boolean;
  archive: boolean;
  convert: boolean;
  bringIn: boolean;
  runEditor: boolean;
}
export interface CureAt {
  itemId: string;
  found: Pick<AnswerOf<'GET /api/items/:id/foretell'>, 'shelf' | 'launcher'>;
  row: ForetoldAt;
  may: MayCure;
  /** asks again */ onDone: () => void;
}

export function CureButton({ cure, at }: { cure: Cure; at: CureAt }) {
  const router = useRouter();
  const { busy, problem, run } = useAction();
  const { itemId, row, may } = at;
  const where = row.station ? `${row.title} at ${row.station.name}` : row.title;
  const does = (words: string, work: () => Promise<unknown>): ReactNode => (
    <>
      <button
        className="underline"
        disabled={busy}
        aria-label={`${words}: ${where}`}
        onClick={() => void run(work).then((well) => well && at.onDone())}
      >
        {words}
      </button>
      <Notice problem={problem} className="mt-1" />
    </>
  );
  const leads = (words: string, href: string): ReactNode => (
    <Link className="underline" href={href}>
      {words}
    </Link>
  );
  const rollOut = async (versions: string[]) => {
    const stations = row.station ? [row.station.id] : [];
    const { id } = await call('POST /api/rollouts', { body: { title: '', versions, stations } });
    router.push(`/rollouts/${id}`);
  };
  const tell = async (verbs: ('launch' | 'quit' | 'import')[]) => {
    for (const verb of verbs)
      await call('POST /api/stations/:id/editor', { id: row.station?.id ?? '', body: { editor: row.editor, verb } });
  };
  const mayRun = may.runEditor && at.found.launcher && row.station !== null;
  const buttons: Record<Cure, () => ReactNode> = {
    'bring back': () =>
      may.archive &&
      does('Bring it back', () => call('POST /api/items/archive', { body: { items: [itemId], archived: false } })),
    'show shelf': () =>
      at.found.shelf !== null &&
      does('Show the shelf', () =>
        call('POST /api/shelves/:id/away', { id: at.found.shelf ?? '', body: { away: false } }),
      ),
    approve: () => may.approve && does('Approve it', () => call('POST /api/versions/:id/approve', { id: row.version })),
    convert: () => may.convert && leads('Convert it', `/items/${itemId}/convert`),
    'describe editor': () => leads('Its descriptor', '/studio'),
    'roll out': () => may.plan && row.station !== null && does('Plan it', () => rollOut([row.version])),
    'roll out what it needs': () =>
      may.plan && row.station !== null && row.needs.length > 0 && does('Plan that', () => rollOut(row.needs)),
    'bring in': () => may.bringIn && leads('Bring it in', '/intake'),
    start: () => mayRun && does('Start it', () => tell(['launch'])),
    restart: () => mayRun && does('Restart it', () => tell(['quit', 'launch'])),
    'take in there': () => mayRun && does('Have it taken in', () => tell(['import'])),
  };
  return <>{buttons[cure]()}</>;
}
