'use client';
/** The spine that is looked at: what it does to the current frame, and what can be done with it. */
import { Bookmark } from 'lucide-react';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { FramePreview } from '../kit/FramePreview';
import { NotShown } from '../kit/NotShown';
import { State } from '../kit/State';
import { kindWords, type Spine } from './model/spine';

interface Named {
  id: string;
  name: string;
}
interface Props {
  spine: Spine | undefined;
  frame: Named | undefined;
  frames: Named[];
  onFrame: (id: string) => void;
  mine: boolean;
  chosen: boolean;
  onRibbon: () => void;
  onChoose: () => void;
  may: boolean;
  /** versions of the spines in view */ ahead: string[];
}

export function SpineInHand({ spine, ...props }: Props) {
  return (
    <aside
      aria-label="The spine in hand"
      className="sticky top-[52px] h-[calc(100vh-52px)] overflow-auto border-l border-line bg-sheet p-[18px] max-[1000px]:hidden"
    >
      {spine ? <InHand spine={spine} {...props} /> : <p className="text-soft">The spine in hand is shown here.</p>}
    </aside>
  );
}

type InHandProps = Omit<Props, 'spine'> & { spine: Spine };

function InHand({ spine, frame, frames, onFrame, mine, chosen, onRibbon, onChoose, may, ahead }: InHandProps) {
  return (
    <>
      <h2 className="text-[22px] leading-tight [overflow-wrap:anywhere]">{spine.title}</h2>
      <p className="mb-3 mt-1 flex flex-wrap gap-x-2 text-soft">
        {spine.kind === 'preset' ? `Preset of ${spine.language}` : kindWords[spine.kind]}, version {spine.number}{' '}
        <State of={spine.status} />
      </p>
      {frame && (spine.kind === 'look' || spine.kind === 'preset') ? (
        <OnFrame spine={spine} frame={frame} frames={frames} onFrame={onFrame} ahead={ahead} />
      ) : (
        <p className="mb-3 text-soft">
          {frame ? 'Items of this kind are judged by their facts.' : 'There is no reference frame to show it on.'}
        </p>
      )}
      <SpineFacts spine={spine} />
      <div className="flex flex-wrap gap-2">
        <Link className="button main" href={`/items/${spine.id}${frame ? `?frame=${frame.id}` : ''}`}>
          Open
        </Link>
        <button className="button" aria-pressed={mine} onClick={onRibbon}>
          <Bookmark aria-hidden size={13} fill={mine ? 'currentColor' : 'none'} />
          Ribbon
        </button>
        {may && (
          <button className="button" aria-pressed={chosen} onClick={onChoose}>
            {chosen ? 'Unselect' : 'Choose'}
          </button>
        )}
      </div>
      <Keys />
    </>
  );
}

type OnFrameProps = Pick<InHandProps, 'spine' | 'frames' | 'onFrame' | 'ahead'> & { frame: Named };

/** What it does to a picture, which can be another one. */
function OnFrame({ spine, frame, frames, onFrame, ahead }: OnFrameProps) {
  return (
    <>
      <FramePreview
        frame={frame.id}
        version={spine.versionId}
        strength={100}
        width={320}
        points={17}
        ahead={ahead}
        label={`${spine.title} on ${frame.name}`}
      />
      <NotShown kind={spine.kind} version={spine.versionId} />
      <p className="mb-3 mt-1.5 flex items-center gap-2 text-[12px] text-soft">
        <select
          aria-label="Frame"
          className="field h-[26px] min-w-0 flex-1 text-[12.5px] text-ink"
          value={frame.id}
          onChange={(event) => onFrame(event.target.value)}
        >
          {frames.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <span className="whitespace-nowrap">Hold to compare</span>
      </p>
    </>
  );
}

/** A fact with its name; what there is nothing to say of is left out. */
function SpineFact({ name, children }: { name: string; children: ReactNode }) {
  if (!children) return null;
  return (
    <div>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}

function SpineFacts({ spine }: { spine: Spine }) {
  const encoding = spine.assumed ? <State of="draft" word="sRGB, assumed" /> : 'confirmed';
  return (
    <dl className="facts mb-4 border-b border-line">
      <SpineFact name="Headings">{spine.headings.join(' / ') || 'none'}</SpineFact>
      <SpineFact name="Cameras">{spine.cameras.join(', ')}</SpineFact>
      <SpineFact name="Supplier">{spine.supplier}</SpineFact>
      <SpineFact name="Encoding">{spine.kind === 'look' && encoding}</SpineFact>
      <SpineFact name="Tags">{spine.tags.join(', ')}</SpineFact>
      <SpineFact name="On stations">{spine.stations || 'none'}</SpineFact>
    </dl>
  );
}

const Key = ({ children }: { children: string }) => <kbd className="key">{children}</kbd>;

const keys = [
  { press: ['/'], words: 'find' },
  { press: ['←', '→'], words: 'walk' },
  { press: ['R'], words: 'ribbon' },
  { press: ['Space'], words: 'choose' },
  { press: ['Shift Space'], words: 'choose up to here' },
  { press: ['Ctrl A'], words: 'choose all that was found' },
  { press: ['Alt ←', '→'], words: 'move' },
];

function Keys() {
  return (
    <ul className="mt-5 flex flex-wrap gap-x-3 text-[12px] leading-6 text-soft">
      {keys.map(({ press, words }) => (
        <li key={words} className="whitespace-nowrap">
          {press.map((key) => (
            <Key key={key}>{key}</Key>
          ))}{' '}
          {words}
        </li>
      ))}
    </ul>
  );
}
