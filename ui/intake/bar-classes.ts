/** How the fields of the bar look that accepts an arrival. */
export const barLabel = 'flex flex-col gap-0.5 text-[12px] text-soft';
export const barControl = 'field text-[13.5px] text-ink';
