/** A look's health: the verdict with its reasons, the neutral scale as it comes out, hues by sector; the figures as a table behind. */
import { figureText, findingWords, inspectionFigures } from '@/core/look/inspection-figures';
import type { Inspection as Found } from '@/core/look/inspect';
import { State } from '../kit/State';
import { verdictStates } from './model/verdict-states';
import { RampChart } from './RampChart';

export function Inspection({ i: inspection }: { i: Found }) {
  return (
    <div className="grid grid-cols-[330px_minmax(0,1fr)] gap-6 max-[900px]:grid-cols-[minmax(0,1fr)]">
      <RampChart ramp={inspection.ramp} />
      <div>
        <p className="mb-1">
          <State of={verdictStates[inspection.verdict]} word={inspection.verdict} />
          {inspection.findings.length === 0 && (
            <span className="ml-2 text-soft">nothing was found that harms pictures</span>
          )}
        </p>
        <ul>
          {inspection.findings.map((finding) => (
            <li key={finding.code} className="border-t border-line py-1.5">
              <b className="font-medium">{findingWords[finding.code]}</b>, {figureText(finding.figure)} {finding.unit}
              {finding.severity === 'poor' && <span className="text-madder"> poor</span>}
              <span className="block text-[12px] text-soft">{finding.message}</span>
            </li>
          ))}
        </ul>
        <details className="mt-1 border-t border-line pt-1.5">
          <summary className="cursor-pointer text-soft">All figures</summary>
          <table className="list">
            <tbody>
              {inspectionFigures.map(({ name, words, unit }) => (
                <tr key={name}>
                  <td className="!py-1">{words}</td>
                  <td className="!py-1 text-right">{figureText(inspection.figures[name])}</td>
                  <td className="!py-1 text-soft">{unit}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      </div>
    </div>
  );
}
