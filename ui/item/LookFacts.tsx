import { agreementWords, type Agreement } from '@/core/editor-chart/figures';
import { isPlain, type AssumedEncoding } from '@/core/look/assumed-encoding';
import { reachWords } from '@/core/look/tonal-range';
import { Fact } from '../kit/Fact';
import { Ago } from '../kit/time';
import { counted } from '../kit/words';
import { rounded } from './value-words';

interface Span {
  min: number[];
  max: number[];
}
export interface TableFacts {
  kind: string;
  size: number;
  domain: Span;
  range: Span;
  comments?: string[];
  warnings?: { message: string; where: string }[];
  fileTitle?: string;
  tableError?: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number };
  /** of a camera match */
  matched?: {
    from: string;
    to: string;
    patches: number;
    before: { mean: number; max: number };
    after: { mean: number; max: number };
  };
  /** of what was read from a chart that went through an editor */ measured?: Measured;
}
interface Measured {
  editor: string;
  readings: number;
  validFor: string;
  /** ISO date with time */ at: string;
  /** of several readings against their average, in ΔE00 */ spread: { mean: number; max: number } | null;
  agreement: Agreement | null;
}

/** "0 to 1" where all channels are the same, else each of them. */
function spanWords({ min, max }: Span): string {
  const ends = [min, max].map((values) => {
    const words = values.map(rounded);
    return new Set(words).size === 1 ? words[0] : words.join(', ');
  });
  return ends.join(' to ');
}

/** The editor's own doing, as a chart brought it back; and how well our rendering of the preset agrees with it. */
function ReadFromChart({ measured }: { measured: Measured }) {
  const { editor, readings, validFor, at, spread, agreement } = measured;
  return (
    <>
      <Fact name="Read from a chart">
        {editor}, {counted(readings, 'reading')}, <Ago at={at} />; valid for {validFor}
        {spread && (
          <span className="block text-[12px] text-soft">
            the readings are ΔE00 {spread.mean.toFixed(2)} from their average, {spread.max.toFixed(2)} at most
          </span>
        )}
      </Fact>
      {agreement && (
        <Fact name="Agreement with the editor">
          {agreementWords(agreement)}
          <span className="block text-[12px] text-soft">our rendering of the preset against what the editor made</span>
        </Fact>
      )}
    </>
  );
}

/** A table: its size, domain and range, and how far it is from what it was baked from. */
export function LookFacts({ facts, encoding }: { facts: TableFacts; encoding: AssumedEncoding | null }) {
  const { kind, size, tableError, fileTitle, warnings = [] } = facts;
  return (
    <dl className="facts">
      <Fact name="Table">{kind === '3d' ? `3D, ${size} points an axis` : `1D, ${size} entries`}</Fact>
      <Fact name="Domain">{spanWords(facts.domain)}</Fact>
      {(!encoding || isPlain(encoding)) && <Fact name="Tonal range">{reachWords(facts.domain)}</Fact>}
      <Fact name="Range">{spanWords(facts.range)}</Fact>
      {tableError && (
        <Fact name="Table error">
          ΔE00 mean {tableError.meanDeltaE.toFixed(3)}, 95 % {tableError.p95DeltaE.toFixed(3)}, max{' '}
          {tableError.maxDeltaE.toFixed(2)}
          <span className="block text-[12px] text-soft">
            {facts.matched
              ? 'the match itself against this table'
              : 'our rendering of the preset against this table; agreement with the editor is a figure of its own'}
          </span>
        </Fact>
      )}
      {facts.matched && (
        <Fact name="Camera match">
          {facts.matched.from} made like {facts.matched.to}, by {counted(facts.matched.patches, 'patch', 'patches')}
          <span className="block text-[12px] text-soft">
            ΔE00 mean {facts.matched.before.mean.toFixed(2)} before, {facts.matched.after.mean.toFixed(2)} after; max{' '}
            {facts.matched.before.max.toFixed(2)} and {facts.matched.after.max.toFixed(2)}
          </span>
        </Fact>
      )}
      {facts.measured && <ReadFromChart measured={facts.measured} />}
      {fileTitle && <Fact name="Title in the file">{fileTitle}</Fact>}
      {warnings.map((warning) => (
        <Fact key={warning.where} name="Warning">
          <span className="text-ochre">
            {warning.message} ({warning.where})
          </span>
        </Fact>
      ))}
    </dl>
  );
}
