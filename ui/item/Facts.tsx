/** What was read from a version, by its kind. */
import type { CameraProfileFacts } from '@/core/camera/facts';
import type { AssumedEncoding } from '@/core/look/assumed-encoding';
import type { ClassOverrides } from '@/core/preset/bake';
import { Fact } from '../kit/Fact';
import { LookFacts, type TableFacts } from './LookFacts';
import { PresetFacts } from './PresetFacts';
import { ProfileFacts } from './ProfileFacts';
import { factName, valueText } from './value-words';

interface Props {
  kind: string;
  facts: Record<string, unknown>;
  /** of a look */ encoding: AssumedEncoding | null;
}

export function ReadFacts({ kind, facts, encoding }: Props) {
  if (kind === 'preset')
    return (
      <PresetFacts
        settings={(facts.settings ?? {}) as Record<string, unknown>}
        classes={(facts.classes ?? {}) as ClassOverrides}
        unknown={(facts.unknown ?? {}) as Record<string, string>}
      />
    );
  if (kind === 'look' && 'domain' in facts)
    return <LookFacts facts={facts as unknown as TableFacts} encoding={encoding} />;
  if (kind === 'camera-profile' && 'illuminants' in facts)
    return <ProfileFacts facts={facts as unknown as CameraProfileFacts} />;
  return <OtherFacts facts={facts} />;
}

/** Kept for other uses than to be read here. */
const hidden = new Set([
  'kind',
  'fileTitle',
  'fileHeadings',
  'fileScope',
  'settings',
  'classes',
  'unknown',
  'evidence',
  'internalId',
]);
const MOST_ENTRIES = 60;

const isEmpty = (value: unknown): boolean =>
  value === null || value === '' || (Array.isArray(value) && value.length === 0);

function entryText(entry: unknown): string {
  if (typeof entry !== 'object' || entry === null) return String(entry as string | number);
  return Object.values(entry).map(valueText).join(', ');
}

/** Facts of the kinds that have no form of their own: what the file says, and its tags. */
function OtherFacts({ facts }: { facts: Record<string, unknown> }) {
  const told = Object.entries(facts).filter(([key, value]) => !hidden.has(key) && !isEmpty(value));
  return (
    <dl className="facts">
      {told.map(([key, value]) => (
        <Fact key={key} name={factName(key)}>
          {Array.isArray(value) ? value.slice(0, MOST_ENTRIES).map(entryText).join(', ') : valueText(value)}
        </Fact>
      ))}
    </dl>
  );
}
