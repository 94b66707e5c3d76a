'use client';
/** What the picture of a preset does not show, said below it. */
import { useQuery } from '@tanstack/react-query';
import { call } from './call';

/** “not shown: grain, vignette; without “Haze”, which is not held”; '' where all is shown. */
export function notShownWords({
  notShown,
  missing,
}: {
  notShown: readonly string[];
  missing: readonly string[];
}): string {
  return [
    notShown.length ? `not shown: ${notShown.join(', ').toLowerCase()}` : '',
    missing.length ? `without ${missing.map((name) => `“${name}”`).join(', ')}, which is not held` : '',
  ]
    .filter(Boolean)
    .join('; ');
}

interface Props {
  kind: string;
  version: string;
}

/** Of a version that is in view; nothing for what is no preset, or is shown whole. */
export function NotShown({ kind, version }: Props) {
  const { data } = useQuery({
    queryKey: ['not shown', version],
    queryFn: ({ signal }) => call('GET /api/versions/:id/shown', { id: version, signal }),
    enabled: kind === 'preset',
    staleTime: 60_000,
  });
  const words = data && kind === 'preset' ? notShownWords(data) : '';
  return words ? <p className="mt-1 text-[12px] text-soft [overflow-wrap:anywhere]">{words}</p> : null;
}
