import Link from 'next/link';
import { agreementWords } from '@/core/editor-chart/figures';
import type { Figures } from '@/core/conversion/outcome';
import { Ago } from '../kit/time';

export interface Measurement {
  chart: string;
  editor: string;
  validFor: string;
  figures: Figures;
  /** ISO date with time */ at: string;
}

interface Props {
  measured: readonly Measurement[];
  /** the preset's item and its form, of which a chart is made */ item: string;
  form: string;
}

/** How well our rendering agrees with editors, as far as charts have told; and the way to a chart. */
export function EditorAgreement({ measured, item, form }: Props) {
  return (
    <section className="mb-5">
      <h2 className="mb-1 text-[15px]">Agreement with the editor</h2>
      {measured.length ? (
        <ul className="mb-1">
          {measured.map((one) => (
            <li key={`${one.editor} ${one.validFor}`}>
              <Link className="hover:underline" href={`/convert/charts/${one.chart}`}>
                {one.editor}
              </Link>
              : {agreementWords(one.figures)}
              <span className="block text-[12px] text-soft">
                by a chart, <Ago at={one.at} />; valid for {one.validFor}
              </span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="text-soft">Not measured.</p>
      )}
      <Link className="text-[12.5px] underline" href={`/convert/charts?preset=${item}&form=${form}`}>
        Measure it by a chart
      </Link>
      <Link className="mt-1 block text-[12.5px] underline" href={`/items/${item}/exported?form=${form}`}>
        Compare it with an export of the editor
      </Link>
    </section>
  );
}
