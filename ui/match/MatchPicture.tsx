/* eslint-disable @next/next/no-img-element -- made by the server, at the width that they have */
/** A frame with the areas that were compared: those that were used, and those that fit nothing. */
import type { MatchedPatch } from '@/core/look/camera-match';

interface Props {
  frame: { id: string; name: string; width: number; height: number };
  words: string;
  patches: readonly MatchedPatch[];
}

export function MatchPicture({ frame, words, patches }: Props) {
  return (
    <figure className="min-w-0">
      <div className="relative bg-press" style={{ aspectRatio: frame.width / frame.height }}>
        <img src={`/api/frames/${frame.id}?w=900`} alt={frame.name} className="block h-full w-full" />
        <svg aria-hidden viewBox="0 0 1 1" preserveAspectRatio="none" className="absolute inset-0 h-full w-full">
          {patches.map(({ name, area, used }) => {
            if (!area) return null;
            const [x, y, width, height] = area;
            return (
              <rect
                key={name}
                x={x + 0.2 * width}
                y={y + 0.2 * height}
                width={0.6 * width}
                height={0.6 * height}
                fill="none"
                stroke={used ? '#fff' : '#a33'}
                strokeDasharray={used ? undefined : '2 2'}
                strokeWidth={1}
                vectorEffect="non-scaling-stroke"
              />
            );
          })}
        </svg>
      </div>
      <figcaption className="mt-1 text-[12px] text-soft [overflow-wrap:anywhere]">
        {words}: {frame.name}
      </figcaption>
    </figure>
  );
}
