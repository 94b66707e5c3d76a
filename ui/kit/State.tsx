/** State as shape, word and color together, never as color alone. */
const shapes = {
  full: <circle cx="6" cy="6" r="5" />,
  half: (
    <>
      <circle cx="6" cy="6" r="4.5" fill="none" stroke="currentColor" />
      <path d="M6 1.5a4.5 4.5 0 0 1 0 9z" />
    </>
  ),
  turn: <path d="M9.5 2.6A4.6 4.6 0 1 1 6 1.4" fill="none" stroke="currentColor" strokeWidth="1.8" />,
  diamond: <path d="M6 .5 11.5 6 6 11.5.5 6z" />,
  ring: <circle cx="6" cy="6" r="4.4" fill="none" stroke="currentColor" strokeWidth="1.4" />,
  dash: <path d="M2 5.2h8v1.6H2z" />,
  cross: <path d="m2 3.2 1.2-1.2L6 4.8 8.8 2 10 3.2 7.2 6 10 8.8 8.8 10 6 7.2 3.2 10 2 8.8 4.8 6z" />,
} as const;
export type Shape = keyof typeof shapes;

/** One table of the states of the product: their shape, word and color. */
export const states: Record<string, { shape: Shape; word: string; tone: string }> = {
  'in-step': { shape: 'full', word: 'in step', tone: 'text-ink' },
  listed: { shape: 'full', word: 'listed', tone: 'text-ink' },
  'seen-working': { shape: 'full', word: 'seen working', tone: 'text-verd' },
  'does-otherwise': { shape: 'cross', word: 'does something else', tone: 'text-madder' },
  'effect-unclear': { shape: 'ring', word: 'not to be told by this frame', tone: 'text-ochre' },
  'no-picture': { shape: 'cross', word: 'no picture', tone: 'text-madder' },
  'picture-asked': { shape: 'turn', word: 'picture asked for', tone: 'text-soft' },
  done: { shape: 'full', word: 'done', tone: 'text-ink' },
  approved: { shape: 'full', word: 'approved', tone: 'text-ink' },
  'restart-due': { shape: 'turn', word: 'restart due', tone: 'text-ochre' },
  'quit-due': { shape: 'turn', word: 'waits for the editor to be quit', tone: 'text-ochre' },
  'launch-due': { shape: 'turn', word: 'read at next start', tone: 'text-soft' },
  'rescan-due': { shape: 'turn', word: 'rescan due', tone: 'text-ochre' },
  'update-due': { shape: 'half', word: 'update due', tone: 'text-ochre' },
  running: { shape: 'turn', word: 'under way', tone: 'text-verd' },
  reading: { shape: 'turn', word: 'being read', tone: 'text-verd' },
  planning: { shape: 'turn', word: 'being planned', tone: 'text-verd' },
  planned: { shape: 'ring', word: 'planned', tone: 'text-soft' },
  paused: { shape: 'half', word: 'paused', tone: 'text-ochre' },
  stopped: { shape: 'dash', word: 'stopped', tone: 'text-soft' },
  confirmed: { shape: 'turn', word: 'under way', tone: 'text-verd' },
  undoing: { shape: 'turn', word: 'being undone', tone: 'text-ochre' },
  undone: { shape: 'ring', word: 'undone', tone: 'text-soft' },
  draft: { shape: 'ring', word: 'draft', tone: 'text-ochre' },
  retired: { shape: 'dash', word: 'retired', tone: 'text-soft' },
  'import-due': { shape: 'turn', word: 'to be taken in there', tone: 'text-ochre' },
  'by-hand': { shape: 'half', word: 'put there by hand', tone: 'text-soft' },
  unread: { shape: 'ring', word: 'not read', tone: 'text-ochre' },
  refused: { shape: 'cross', word: 'refused', tone: 'text-madder' },
  left: { shape: 'dash', word: 'left out', tone: 'text-soft' },
  failed: { shape: 'cross', word: 'failed', tone: 'text-madder' },
  conflict: { shape: 'diamond', word: 'conflict', tone: 'text-madder' },
  changed: { shape: 'diamond', word: 'changed there', tone: 'text-madder' },
  'changed-there': { shape: 'diamond', word: 'changed there', tone: 'text-madder' },
  'gone-there': { shape: 'diamond', word: 'gone there', tone: 'text-madder' },
  'camera-unused': { shape: 'half', word: 'camera not used there', tone: 'text-ochre' },
  'not-listed': { shape: 'cross', word: 'not listed', tone: 'text-madder' },
  theirs: { shape: 'ring', word: 'theirs', tone: 'text-soft' },
  empty: { shape: 'dash', word: 'not placed by Etagere', tone: 'text-soft' },
  waiting: { shape: 'ring', word: 'waiting', tone: 'text-soft' },
  new: { shape: 'full', word: 'new', tone: 'text-verd' },
  duplicate: { shape: 'half', word: 'held already', tone: 'text-soft' },
  document: { shape: 'dash', word: 'document', tone: 'text-soft' },
  unknown: { shape: 'ring', word: 'unknown', tone: 'text-ochre' },
  ignored: { shape: 'dash', word: 'left out', tone: 'text-soft' },
  version: { shape: 'full', word: 'new version', tone: 'text-verd' },
  variant: { shape: 'half', word: 'variant', tone: 'text-verd' },
  frame: { shape: 'full', word: 'frame', tone: 'text-verd' },
  descriptor: { shape: 'full', word: 'descriptor', tone: 'text-verd' },
  'same-effect': { shape: 'half', word: 'same effect', tone: 'text-soft' },
  arriving: { shape: 'turn', word: 'arriving', tone: 'text-verd' },
  archived: { shape: 'dash', word: 'archived', tone: 'text-soft' },
  covered: { shape: 'full', word: 'covered', tone: 'text-ink' },
  partly: { shape: 'half', word: 'partly covered', tone: 'text-ochre' },
  surplus: { shape: 'half', word: 'not to be used', tone: 'text-ochre' },
  missing: { shape: 'ring', word: 'missing', tone: 'text-ochre' },
  gap: { shape: 'cross', word: 'missing', tone: 'text-madder' },
  yes: { shape: 'full', word: 'yes', tone: 'text-ink' },
  no: { shape: 'cross', word: 'no', tone: 'text-madder' },
  'not-said': { shape: 'ring', word: 'not said', tone: 'text-soft' },
  taken: { shape: 'full', word: 'accepted', tone: 'text-ink' },
  converted: { shape: 'half', word: 'after conversion', tone: 'text-ochre' },
  impossible: { shape: 'dash', word: 'not supported', tone: 'text-soft' },
  noted: { shape: 'ring', word: 'noted', tone: 'text-ochre' },
  sent: { shape: 'turn', word: 'sent', tone: 'text-verd' },
  promised: { shape: 'half', word: 'promised', tone: 'text-verd' },
  fulfilled: { shape: 'full', word: 'fulfilled', tone: 'text-ink' },
  declined: { shape: 'dash', word: 'declined', tone: 'text-soft' },
  ready: { shape: 'half', word: 'to be settled', tone: 'text-ochre' },
  accepted: { shape: 'full', word: 'taken in', tone: 'text-ink' },
  'not-accepted': { shape: 'dash', word: 'not supported', tone: 'text-soft' },
  full: { shape: 'cross', word: 'no room', tone: 'text-madder' },
};

export function State({ of, word, className = '' }: { of: string; word?: string; className?: string }) {
  const state = states[of] ?? { shape: 'ring' as const, word: of, tone: 'text-soft' };
  return (
    <span className={`inline-flex items-center gap-1.5 ${state.tone} ${className}`}>
      <svg viewBox="0 0 12 12" width="11" height="11" fill="currentColor" aria-hidden className="shrink-0">
        {shapes[state.shape]}
      </svg>
      <span>{word ?? state.word}</span>
    </span>
  );
}
