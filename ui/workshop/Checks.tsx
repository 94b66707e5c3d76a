/** Each sample through the mapping and back, and the properties that nobody has mapped. */
import { settingTitle } from '@/core/preset/settings';
import type { CheckedSample } from '@/core/preset/workshop/check';
import type { Property } from '@/core/preset/workshop/survey';
import { State } from '../kit/State';
import { counted } from '../kit/words';

interface Props {
  checked: readonly CheckedSample[];
  unmapped: readonly Property[];
  /** there is an empty preset to write into */ canWrite: boolean;
}

export function Checks({ checked, unmapped, canWrite }: Props) {
  const byUse = [...unmapped].sort((a, b) => b.samples - a.samples);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_320px] gap-8 max-[1100px]:grid-cols-[minmax(0,1fr)]">
      <table className="list" aria-label="Round trips">
        <thead>
          <tr>
            <th>Sample</th>
            <th className="text-right">Settings read</th>
            <th className="pl-6">Written again</th>
          </tr>
        </thead>
        <tbody>
          {checked.map((sample) => (
            <tr key={sample.name} data-row={sample.name}>
              <th
                scope="row"
                className="!border-line !py-2 align-top !text-[13.5px] !text-ink [overflow-wrap:anywhere]"
              >
                {sample.read?.name || sample.name}
                {sample.read?.name && <span className="block text-[12px] font-normal text-soft">{sample.name}</span>}
              </th>
              <td className="text-right align-top">{sample.read ? Object.keys(sample.read.settings).length : ''}</td>
              <td className="pl-6 align-top">
                <RoundTrip sample={sample} canWrite={canWrite} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div>
        <h3 className="mb-1 text-[15px]">Not mapped</h3>
        {byUse.length ? (
          <ul aria-label="Not mapped">
            {byUse.map(({ key, samples }) => (
              <li key={key} className="border-t border-line py-1 [overflow-wrap:anywhere]">
                {key} <span className="text-soft">in {counted(samples, 'sample')}</span>
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-soft">Every property stands for something.</p>
        )}
      </div>
    </div>
  );
}

function RoundTrip({
  sample: { read, changed, left, problem },
  canWrite,
}: {
  sample: CheckedSample;
  canWrite: boolean;
}) {
  if (problem)
    return (
      <>
        <State of="failed" word={read ? 'cannot be written' : 'cannot be read'} />
        <span className="block text-[12px] text-soft">
          {problem.message} {problem.where}
        </span>
      </>
    );
  if (!canWrite) return <State of="not-said" word="only read" />;
  if (!changed.length && !left.length) return <State of="done" word="reads as before" />;
  return (
    <>
      <State of="partly" word={left.length ? 'not all of it' : 'nearly so'} />
      {changed.map(({ setting, asked, reads }) => (
        <span key={setting} className="block text-[12px] text-soft">
          {settingTitle(setting)}: {JSON.stringify(asked)} becomes {JSON.stringify(reads)}
        </span>
      ))}
      {left.map(({ setting, reason }) => (
        <span key={setting} className="block text-[12px] text-soft">
          {settingTitle(setting)}: {reason}
        </span>
      ))}
    </>
  );
}
