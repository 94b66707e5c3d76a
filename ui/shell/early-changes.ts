/**
 * A box ticked or a name typed in before the page's program has come: the browser shows it, the program never heard of it, and
 * what is shown is not what will be sent. Once the page is awake, each such change is told again as if it were made now.
 */

type Typed = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;
export type EarlyChange = { tick: HTMLInputElement } | { field: Typed; now: string; sent: string };

const NOT_TYPED = ['checkbox', 'radio', 'file', 'hidden', 'submit', 'button', 'image', 'reset'];
const typedFields = `input${NOT_TYPED.map((type) => `:not([type="${type}"])`).join('')}, textarea`;

/** What differs from what the server sent; asked for before the program itself has put anything into a field. */
export function earlyChanges(root: ParentNode): EarlyChange[] {
  const boxes = root.querySelectorAll<HTMLInputElement>('input[type="checkbox"], input[type="radio"]');
  const fields = root.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>(typedFields);
  return [
    ...[...boxes].filter(isTurned).map((tick) => ({ tick })),
    ...[...fields].map((field) => ({ field, now: field.value, sent: field.defaultValue })),
    ...[...root.querySelectorAll('select')].map((field) => ({ field, now: field.value, sent: sentChoice(field) })),
  ].filter((change) => 'tick' in change || (!change.field.disabled && change.now !== change.sent));
}

/** A radio button that lost its dot to another one is told of by that one. */
const isTurned = (box: HTMLInputElement): boolean =>
  !box.disabled && box.checked !== box.defaultChecked && (box.type === 'checkbox' || box.checked);

function sentChoice(select: HTMLSelectElement): string {
  const options = [...select.options];
  return (options.find((option) => option.defaultSelected) ?? options[0])?.value ?? '';
}

/**
 * Tells the program of them.
 * @param isRestored whether the page was come back to, or loaded again: then it may be the browser that put into fields what
 * was in them before. Words are kept; what may act at once is shown again as it is, since nobody has asked for it now.
 */
export function tellAgain(changes: readonly EarlyChange[], isRestored: boolean): void {
  for (const change of changes) {
    if ('tick' in change) {
      change.tick.checked = change.tick.defaultChecked;
      if (!isRestored) change.tick.click();
    } else if (isRestored && change.field instanceof HTMLSelectElement) change.field.value = change.sent;
    else typeAgain(change.field, change.now, change.sent);
  }
}

/** Whether this page was loaded again, or come back to. */
export function isPageRestored(): boolean {
  const [entry] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  return entry !== undefined && entry.type !== 'navigate';
}

/**
 * React keeps its own account of a field's value by a property of the field; a change that is made past it, by the setter of
 * the field's class, is news to it.
 */
function typeAgain(field: Typed, now: string, sent: string): void {
  field.value = sent;
  const own = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field) as object, 'value');
  own?.set?.call(field, now);
  field.dispatchEvent(new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }));
}
