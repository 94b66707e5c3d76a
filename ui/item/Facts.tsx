/** Facts of a version by kind: a preset's settings by family with units, a table's size, domain and range. */
import { settingById } from '@/core/preset/settings';
import { classReason } from '@/core/preset/settings';
import type { ClassOverrides } from '@/core/preset/bake';

const round = (n: number): string => String(Math.round(n * 1000) / 1000);

export function valueText(value: unknown): string {
  if (typeof value === 'number') return round(value);
  if (typeof value === 'string') return value;
  if (value === null) return 'none';
  if (Array.isArray(value))
    return value.every((v) => typeof v === 'number')
      ? value.map((v) => round(v as number)).join(', ')
      : value.map(valueText).join('; ');
  return Object.entries(value as object)
    .map(([k, v]) => `${k} ${valueText(v)}`)
    .join(', ');
}

const families: Record<string, string> = {
  light: 'Light',
  white: 'White balance',
  curve: 'Curves',
  color: 'Color',
  monochrome: 'Monochrome',
  matrix: 'Matrix and CDL',
  detail: 'Detail',
  optics: 'Optics',
  frame: 'Frame',
  reference: 'References',
};

export function PresetFacts({
  settings,
  classes,
  unknown,
}: {
  settings: Record<string, unknown>;
  classes: ClassOverrides;
  unknown: Record<string, string>;
}) {
  const rows = Object.entries(settings).flatMap(([id, value]) => {
    const setting = settingById.get(id);
    return setting ? [{ d: setting, value, kind: classes[id]?.class ?? setting.class, why: classes[id]?.reason }] : [];
  });
  return (
    <>
      {Object.entries(families).map(([family, name]) => {
        const own = rows.filter((r) => r.d.family === family);
        return own.length ? (
          <section key={family} className="mb-4">
            <h3 className="mb-1 text-[15px]">{name}</h3>
            <dl className="facts">
              {own.map(({ d: setting, value, kind, why }) => (
                <div key={setting.id}>
                  <dt>{setting.title}</dt>
                  <dd>
                    {valueText(value)}{' '}
                    <span className="text-soft">
                      {setting.unit === 'name' || setting.unit === 'name; %' ? '' : setting.unit}
                    </span>
                    {kind !== 'point' && (
                      <span className="block text-[12px] text-ochre">not for a table: {why ?? classReason[kind]}</span>
                    )}
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        ) : null;
      })}
      {Object.keys(unknown).length > 0 && (
        <section className="mb-4">
          <h3 className="mb-1 text-[15px]">Not understood</h3>
          <p className="mb-1 text-[12px] text-soft">Kept untouched in the file.</p>
          <dl className="facts">
            {Object.entries(unknown).map(([key, value]) => (
              <div key={key}>
                <dt className="font-mono text-[12px]">{key}</dt>
                <dd className="font-mono text-[12px]">{value}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
    </>
  );
}

interface TableFact {
  kind: string;
  size: number;
  domain: { min: number[]; max: number[] };
  range: { min: number[]; max: number[] };
  comments?: string[];
  warnings?: { message: string; where: string }[];
  fileTitle?: string;
  tableError?: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number };
}

export function LookFacts({ facts }: { facts: TableFact }) {
  const span = (r: { min: number[]; max: number[] }) =>
    new Set(r.min.map(round)).size === 1 && new Set(r.max.map(round)).size === 1
      ? `${round(r.min[0]!)} to ${round(r.max[0]!)}`
      : `${r.min.map(round).join(', ')} to ${r.max.map(round).join(', ')}`;
  return (
    <dl className="facts">
      <div>
        <dt>Table</dt>
        <dd>{facts.kind === '3d' ? `3D, ${facts.size} points an axis` : `1D, ${facts.size} entries`}</dd>
      </div>
      <div>
        <dt>Domain</dt>
        <dd>{span(facts.domain)}</dd>
      </div>
      <div>
        <dt>Range</dt>
        <dd>{span(facts.range)}</dd>
      </div>
      {facts.tableError && (
        <div>
          <dt>Table error</dt>
          <dd>
            ΔE00 mean {facts.tableError.meanDeltaE.toFixed(3)}, 95 % {facts.tableError.p95DeltaE.toFixed(3)}, max{' '}
            {facts.tableError.maxDeltaE.toFixed(2)}
            <span className="block text-[12px] text-soft">
              our rendering of the preset against this table; agreement with the editor is not measured
            </span>
          </dd>
        </div>
      )}
      {!!facts.fileTitle && (
        <div>
          <dt>Title in the file</dt>
          <dd>{facts.fileTitle}</dd>
        </div>
      )}
      {facts.warnings?.map((w) => (
        <div key={w.where}>
          <dt>Warning</dt>
          <dd className="text-ochre">
            {w.message} ({w.where})
          </dd>
        </div>
      ))}
    </dl>
  );
}

const hidden = new Set([
  'kind',
  'fileTitle',
  'fileHeadings',
  'fileScope',
  'settings',
  'classes',
  'unknown',
  'evidence',
  'internalId',
]);
const spaced = (k: string): string => k.replace(/([A-Z])/g, ' $1').replace(/^./, (c) => c.toUpperCase());

/** Facts of the kinds that have no page of their own yet: what the file says, and its tags. */
export function OtherFacts({ facts }: { facts: Record<string, unknown> }) {
  const rows = Object.entries(facts).filter(
    ([k, v]) => !hidden.has(k) && v !== null && v !== '' && !(Array.isArray(v) && !v.length),
  );
  return (
    <dl className="facts">
      {rows.map(([key, value]) => (
        <div key={key}>
          <dt>{spaced(key)}</dt>
          <dd>
            {Array.isArray(value)
              ? value
                  .slice(0, 60)
                  .map((any) =>
                    typeof any === 'object'
                      ? Object.values(any as object)
                          .map(valueText)
                          .join(', ')
                      : String(any),
                  )
                  .join(', ')
              : typeof value === 'boolean'
                ? value
                  ? 'yes'
                  : 'no'
                : valueText(value)}
          </dd>
        </div>
      ))}
    </dl>
  );
}
