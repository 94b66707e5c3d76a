/** The forms of a design: its plain one and its variants, each by its newest version. */

interface FormOf {
  /** '' for the plain form, else what sets it apart from the design */ variant: string;
}

/** The newest version of each form, in the order in which they come: for versions that come the newest first. */
export function newestForms<V extends FormOf>(versions: readonly V[]): V[] {
  const seen = new Set<string>();
  return versions.filter(({ variant }) => !seen.has(variant) && seen.add(variant));
}

/** What the mark of a variant says of the photos that it is for. */
const inputByMark: ReadonlyMap<string, string> = new Map([
  ['for rendered files', 'rendered SDR'],
  ['for camera data', 'camera data'],
]);

/** The photos that a form is for: as its file says, else as its mark does, else as the item's scope does; null for any. */
export function inputOfForm(
  { variant, facts }: FormOf & { facts: Readonly<Record<string, unknown>> },
  scopeInput: string | null,
): string | null {
  const said = (facts.fileScope as { input?: unknown } | undefined)?.input;
  if (typeof said === 'string') return said;
  return inputByMark.get(variant) ?? scopeInput;
}

/**
 * The conditions under which a form may be offered, as a file says them that has a place for it: the photos that the form is
 * for, what comes of it, and the item's cameras where it is bound to some.
 */
export function scopeToWrite(
  form: FormOf & { facts: Readonly<Record<string, unknown>> },
  item: { scope: Readonly<Record<string, unknown>>; cameras: readonly string[] },
): Record<string, unknown> {
  const { input } = item.scope;
  const ownInput = inputOfForm(form, typeof input === 'string' ? input : null);
  return {
    ...item.scope,
    ...(ownInput ? { input: ownInput } : {}),
    ...(item.cameras.length ? { cameras: item.cameras } : {}),
  };
}

/** The cameras to which a file's own conditions bind it; none where it says nothing of them that makes sense. */
export function camerasInScope(fileScope: unknown): string[] {
  const said =
    typeof fileScope === 'object' && fileScope !== null ? (fileScope as { cameras?: unknown }).cameras : null;
  if (!Array.isArray(said)) return [];
  const names = said.filter((name): name is string => typeof name === 'string').map((name) => name.trim());
  return [...new Set(names.filter((name) => name !== '' && name.length <= MOST_SIGNS))].slice(0, MOST_CAMERAS);
}
const MOST_SIGNS = 120;
const MOST_CAMERAS = 60;
