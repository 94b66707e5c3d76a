/** Things of which some are there, each with a tick. */
export interface Choice {
  id: string;
  title: string;
}

interface Props {
  legend: string;
  choices: readonly Choice[];
  ticked: readonly string[];
  onTick: (ticked: string[]) => void;
}

export function Ticks({ legend, choices, ticked, onTick }: Props) {
  const toggle = (id: string) => onTick(ticked.includes(id) ? ticked.filter((one) => one !== id) : [...ticked, id]);
  return (
    <fieldset className="max-h-[190px] overflow-y-auto">
      <legend className="mb-1 text-[12px] text-soft">{legend}</legend>
      {choices.map(({ id, title }) => (
        <label key={id} className="flex gap-2 py-0.5">
          <input type="checkbox" checked={ticked.includes(id)} onChange={() => toggle(id)} />
          {title}
        </label>
      ))}
    </fieldset>
  );
}

/** What came and what went between two choices. */
export const changeOf = (before: readonly string[], now: readonly string[]) => ({
  came: now.filter((id) => !before.includes(id)),
  went: before.filter((id) => !now.includes(id)),
});
