'use client';
/** The spine that is looked at: what it does to the current frame, and what can be done with it. */
import { Bookmark } from 'lucide-react';
import Link from 'next/link';
import { FramePreview } from '../kit/FramePreview';
import { State } from '../kit/State';
import { kindWords, type Spine } from './model/spine';

interface Props {
  spine: Spine | undefined;
  frame: { id: string; name: string } | undefined;
  frames: { id: string; name: string }[];
  onFrame: (id: string) => void;
  mine: boolean;
  chosen: boolean;
  onRibbon: () => void;
  onChoose: () => void;
  may: boolean;
  /** versions of the spines in view */ ahead: string[];
}

export function SpineInHand({ spine, frame, frames, onFrame, mine, chosen, onRibbon, onChoose, may, ahead }: Props) {
  return (
    <aside
      aria-label="The spine in hand"
      className="sticky top-[52px] h-[calc(100vh-52px)] overflow-auto border-l border-line bg-sheet p-[18px]"
    >
      {spine ? (
        <>
          <h2 className="text-[22px] leading-tight [overflow-wrap:anywhere]">{spine.title}</h2>
          <p className="mb-3 mt-1 flex flex-wrap gap-x-2 text-soft">
            {spine.kind === 'preset' ? `Preset of ${spine.language}` : kindWords[spine.kind]}, version {spine.number}{' '}
            <State of={spine.status} />
          </p>
          {frame && (spine.kind === 'look' || spine.kind === 'preset') ? (
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
              <p className="mb-3 mt-1.5 flex items-center gap-2 text-[12px] text-soft">
                <select
                  aria-label="Frame"
                  className="field h-[26px] min-w-0 flex-1 text-[12.5px] text-ink"
                  value={frame.id}
                  onChange={(e) => onFrame(e.target.value)}
                >
                  {frames.map((f) => (
                    <option key={f.id} value={f.id}>
                      {f.name}
                    </option>
                  ))}
                </select>
                <span className="whitespace-nowrap">Hold to compare</span>
              </p>
            </>
          ) : (
            <p className="mb-3 text-soft">
              {frame ? 'Items of this kind are judged by their facts.' : 'There is no reference frame to show it on.'}
            </p>
          )}
          <dl className="facts mb-4 border-b border-line">
            <div>
              <dt>Headings</dt>
              <dd>{spine.headings.join(' / ') || 'none'}</dd>
            </div>
            {spine.cameras.length > 0 && (
              <div>
                <dt>Cameras</dt>
                <dd>{spine.cameras.join(', ')}</dd>
              </div>
            )}
            {spine.supplier && (
              <div>
                <dt>Supplier</dt>
                <dd>{spine.supplier}</dd>
              </div>
            )}
            {spine.kind === 'look' && (
              <div>
                <dt>Encoding</dt>
                <dd>{spine.assumed ? <State of="draft" word="sRGB, assumed" /> : 'confirmed'}</dd>
              </div>
            )}
            {spine.tags.length > 0 && (
              <div>
                <dt>Tags</dt>
                <dd>{spine.tags.join(', ')}</dd>
              </div>
            )}
            <div>
              <dt>On stations</dt>
              <dd>{spine.stations || 'none'}</dd>
            </div>
          </dl>
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
          <p className="mt-5 text-[12px] leading-6 text-soft">
            <kbd className="key">/</kbd> find <kbd className="key">←</kbd>
            <kbd className="key">→</kbd> walk <kbd className="key">R</kbd> ribbon <kbd className="key">X</kbd> choose{' '}
            <kbd className="key">Alt ←</kbd>
            <kbd className="key">→</kbd> move
          </p>
        </>
      ) : (
        <p className="text-soft">The spine in hand is shown here.</p>
      )}
    </aside>
  );
}
