'use client';
/** Which two frames are compared; they stand in the address. */
import { useRouter } from 'next/navigation';

export interface FrameToMatch {
  id: string;
  name: string;
  /** '' where its file does not say */ camera: string;
}

interface Props {
  frames: readonly FrameToMatch[];
  from: string;
  to: string;
}

/** By camera, those without one last. */
function byCamera(frames: readonly FrameToMatch[]): [string, FrameToMatch[]][] {
  const groups = new Map<string, FrameToMatch[]>();
  for (const frame of frames) groups.set(frame.camera, [...(groups.get(frame.camera) ?? []), frame]);
  return [...groups].sort(([a], [b]) => Number(a === '') - Number(b === '') || a.localeCompare(b));
}

export function FramesOfMatch({ frames, from, to }: Props) {
  const router = useRouter();
  const choose = (next: { from?: string; to?: string }) => {
    const address = new URLSearchParams({ from, to, ...next });
    router.replace(`/convert/match?${address}`, { scroll: false });
  };
  const groups = byCamera(frames);
  const select = (label: string, value: string, onChange: (id: string) => void) => (
    <label className="flex min-w-0 flex-1 flex-col gap-0.5 text-[12px] text-soft">
      {label}
      <select className="field text-[13.5px] text-ink" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">Choose a frame</option>
        {groups.map(([camera, own]) => (
          <optgroup key={camera} label={camera || 'camera not known'}>
            {own.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
  return (
    <div className="mb-5 flex max-w-[760px] gap-4">
      {select('The frame that is changed', from, (id) => choose({ from: id }))}
      {select('It is to look like', to, (id) => choose({ to: id }))}
    </div>
  );
}
