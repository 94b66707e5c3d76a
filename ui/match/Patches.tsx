/** Each patch with how far the two cameras are apart there, before and after; the farthest first. */
import type { MatchedPatch } from '@/core/look/camera-match';

const MOST_SHOWN = 60;

export function Patches({ patches }: { patches: readonly MatchedPatch[] }) {
  const farthest = [...patches].sort((a, b) => b.after - a.after);
  return (
    <table className="list">
      <thead>
        <tr>
          <th>Patch</th>
          <th className="text-right">Before, ΔE00</th>
          <th className="text-right">After, ΔE00</th>
          <th className="pl-6">Used</th>
        </tr>
      </thead>
      <tbody>
        {farthest.slice(0, MOST_SHOWN).map(({ name, before, after, used }) => (
          <tr key={name}>
            <td>{name}</td>
            <td className="text-right">{before.toFixed(2)}</td>
            <td className="text-right">{after.toFixed(2)}</td>
            <td className="pl-6 text-soft">{used ? 'yes' : 'no: clipped, black, or unlike the others'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export const shownWords = (count: number): string =>
  count > MOST_SHOWN ? `the ${MOST_SHOWN} farthest of ${count}` : `all ${count}, the farthest first`;
