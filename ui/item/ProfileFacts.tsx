import type { CameraProfileFacts } from '@/core/camera/facts';
import { illuminantName } from '@/core/camera/tags';
import { Fact } from '../kit/Fact';

/** What the codes of the tag ProfileEmbedPolicy allow (DNG 1.7, chapter "Camera Profiles"). */
const embedding = [
  'yes, and copied out of photos again',
  'yes, into photos that use it',
  'no',
  'yes, without any restriction',
];

const NOT_SAID = 'the file does not say';

/** A camera profile, as its file tells of itself. */
export function ProfileFacts({ facts }: { facts: CameraProfileFacts }) {
  const { name, camera, copyright, embed, illuminants, stages } = facts;
  return (
    <dl className="facts">
      <Fact name="Name in the file">{name || 'none'}</Fact>
      <Fact name="Camera in the file">{camera || 'none'}</Fact>
      <Fact name="Measured under">{illuminants.map(illuminantName).join(' and ') || NOT_SAID}</Fact>
      <Fact name="Stages">{stages.join(', ') || 'matrices only'}</Fact>
      <Fact name="May be embedded">{(embed === null ? null : embedding[embed]) ?? NOT_SAID}</Fact>
      {copyright && <Fact name="Copyright">{copyright}</Fact>}
    </dl>
  );
}
