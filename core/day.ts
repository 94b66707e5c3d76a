/** Whether a text is a day that there is, written as ISO 8601 has it: 2026-12-31. */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const moment = new Date(`${text}T00:00:00Z`);
  // the calendar of JavaScript makes the second of March of a thirtieth of February
  return !Number.isNaN(moment.getTime()) && moment.toISOString().startsWith(text);
}
