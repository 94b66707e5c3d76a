/** What a table of figures does not show: the neutral scale of each item, with the findings in words. For the screen and for paper. */
import { figureText, findingWords } from '@/core/look/inspection-figures';
import { verdictStates } from '../item/model/verdict-states';
import { RampChart, rampLegend } from '../item/RampChart';
import { State } from '../kit/State';
import type { FoundOf, InspectedItem } from './model/item';

export function Charts({ items, foundOf }: { items: readonly InspectedItem[]; foundOf: FoundOf }) {
  return (
    <>
      <p className="mb-2 text-[12px] text-soft">{rampLegend}</p>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,270px),1fr))] gap-x-6 gap-y-5">
        {items.map((item) => {
          const found = foundOf(item);
          if (found.is !== 'found') return null;
          const { verdict, findings, ramp } = found.inspection;
          return (
            <li key={item.id} className="break-inside-avoid border-t border-line pt-2">
              <h3 className="text-[15px] [overflow-wrap:anywhere]">{item.title}</h3>
              <RampChart ramp={ramp} of={item.title} />
              <p>
                <State of={verdictStates[verdict]} word={verdict} />
              </p>
              <ul className="text-[12px] text-soft">
                {findings.map((finding) => (
                  <li key={finding.code}>
                    {findingWords[finding.code]}, {figureText(finding.figure)} {finding.unit}
                  </li>
                ))}
              </ul>
            </li>
          );
        })}
      </ul>
    </>
  );
}
