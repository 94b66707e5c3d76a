import { mapColor, MAP_TOP } from '@/core/bench/measure';

/** The scale of the map, as it is painted. */
export function Legend({ against }: { against: string }) {
  const stops = Array.from(
    { length: 13 },
    (_, i) => `rgb(${mapColor((i / 12) * MAP_TOP).join(' ')}) ${((i * 100) / 12).toFixed(1)}%`,
  ).join(', ');
  return (
    <p className="mb-2 flex items-center gap-3 text-[12px] text-soft">
      <span>ΔE00 against {against}</span>
      <span aria-hidden className="h-[10px] w-[220px]" style={{ background: `linear-gradient(90deg, ${stops})` }} />
      <span>0 to {MAP_TOP} and more. Under each cell: mean, 95th percentile, largest.</span>
    </p>
  );
}
