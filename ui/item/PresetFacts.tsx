import type { ClassOverrides } from '@/core/preset/bake';
import { classReason, settingById } from '@/core/preset/settings';
import { Fact } from '../kit/Fact';
import { valueText } from './value-words';

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

interface Props {
  settings: Record<string, unknown>;
  classes: ClassOverrides;
  /** what no mapping knows, as the file has it */ unknown: Record<string, string>;
}

/** A preset's settings by family, each with its unit; those that no table can carry, with the reason. */
export function PresetFacts({ settings, classes, unknown }: Props) {
  const rows = Object.entries(settings).flatMap(([id, value]) => {
    const setting = settingById.get(id);
    if (!setting) return [];
    const own = classes[id];
    const kind = own?.class ?? setting.class;
    const unit = setting.unit.startsWith('name') ? '' : setting.unit;
    // what is referred to is told above, with whether it is held
    const isForTables = kind === 'point' || kind === 'reference';
    return [{ id, setting, value, unit, reason: isForTables ? null : (own?.reason ?? classReason[kind]) }];
  });
  return (
    <>
      {Object.entries(families).map(([family, name]) => {
        const own = rows.filter(({ setting }) => setting.family === family);
        if (!own.length) return null;
        return (
          <section key={family} className="mb-4">
            <h3 className="mb-1 text-[15px]">{name}</h3>
            <dl className="facts">
              {own.map(({ id, setting, value, unit, reason }) => (
                <Fact key={id} name={setting.title}>
                  {valueText(value)} <span className="text-soft">{unit}</span>
                  {reason && <span className="block text-[12px] text-ochre">not for a table: {reason}</span>}
                </Fact>
              ))}
            </dl>
          </section>
        );
      })}
      <NotUnderstood unknown={unknown} />
    </>
  );
}

function NotUnderstood({ unknown }: Pick<Props, 'unknown'>) {
  const entries = Object.entries(unknown);
  if (!entries.length) return null;
  return (
    <section className="mb-4">
      <h3 className="mb-1 text-[15px]">Not understood</h3>
      <p className="mb-1 text-[12px] text-soft">Kept untouched in the file.</p>
      <dl className="facts">
        {entries.map(([key, value]) => (
          <div key={key}>
            <dt className="font-mono text-[12px]">{key}</dt>
            <dd className="font-mono text-[12px]">{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
