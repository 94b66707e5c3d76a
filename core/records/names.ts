/**
 * Names of cameras and lenses, made comparable. Files, profiles, databases and editors write one model in many ways; a
 * suffix or a mark tells two models apart and is never dropped.
 */
export interface Named {
  maker: string;
  model: string;
  /** every other name that it bears: in files, regional, in an editor */ names: readonly string[];
}

const ROMAN: Record<string, string> = { ii: '2', iii: '3', iv: '4', vi: '6', vii: '7', viii: '8', ix: '9' };
const plain = (s: string): string => s.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
const words = (text: string): string[] =>
  text
    .replace(/[^\p{L}\p{N}.+*/-]+/gu, ' ')
    .replace(/[-/]+(?= |$)|(^| )[-/]+/g, ' ')
    .trim()
    .split(' ')
    .filter(Boolean);

/** Without the maker's words at its beginning; the last word stays, since a model needs a name. */
function withoutMaker(list: string[], maker: string): string[] {
  const own = new Set(words(plain(maker)));
  let i = 0;
  while (i < list.length - 1 && own.has(list[i]!)) i++;
  return list.slice(i);
}

/** "PERRIN Alder Mk. II" of Perrin → "alder mk2"; the order of words counts. */
export function cameraForm(model: string, maker = ''): string {
  const list = withoutMaker(words(plain(model).replace(/[./-]/g, ' ')), maker);
  const out: string[] = [];
  for (let i = 0; i < list.length; i++) {
    const word = list[i]!;
    const mark = /^(?:mark|mk)(\d*)$/.exec(word);
    const next = list[i + 1] ?? '';
    if (mark && (mark[1] || /^\d$/.test(next) || ROMAN[next] || next === 'v' || next === 'i')) {
      const name = mark[1] || (ROMAN[next] ?? ({ v: '5', i: '1' } as Record<string, string>)[next] ?? next);
      if (!mark[1]) i++;
      out.push(`mk${name}`);
    } else if (i > 0 && ROMAN[word]) out.push(`mk${ROMAN[word]}`);
    else out.push(word);
  }
  return out.join(' ');
}

/** "Perrin 24–70 mm F/2.8" of Perrin → its words in order of the alphabet, "24-70mm f2.8": in names of lenses the order tells nothing. */
export function lensForm(model: string, maker = ''): string {
  const text = plain(model)
    .replace(/[‐-―]/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/(?:\bf\s*[/:]?\s*|\b1\s*:\s*)(\d+(?:\.\d+)?(?:\s*-\s*\d+(?:\.\d+)?)?)/g, ' f$1')
    .replace(/(\d)\s*-\s*(\d)/g, '$1-$2')
    .replace(/(\d)\s*mm\b/g, '$1mm')
    .replace(/\bmark\b/g, 'mk');
  return withoutMaker(words(text), maker)
    .map((w) => (/^f?[\d.-]+(mm)?$/.test(w) ? w.replace(/(\d)\.0+(?!\d)/g, '$1') : (ROMAN[w] ?? w)))
    .sort()
    .join(' ');
}

type Form = (model: string, maker?: string) => string;
const formsOf = (thing: Named, form: Form): Set<string> =>
  new Set([thing.model, ...thing.names].map((n) => form(n, thing.maker)).filter(Boolean));

/** Whether a name, as somebody writes it, is one of the thing's own. */
export const bears = (thing: Named, form: Form, name: string): boolean =>
  formsOf(thing, form).has(form(name, thing.maker));

/** The same for many things and many names: each name is made comparable once a maker. */
export function bearer(form: Form): (thing: Named, names: readonly string[]) => boolean {
  const known = new Map<string, Map<string, string>>();
  const own = new Map<Named, Set<string>>();
  return (thing, names) => {
    let forms = known.get(thing.maker);
    let mine = own.get(thing);
    if (!forms) known.set(thing.maker, (forms = new Map<string, string>()));
    if (!mine) own.set(thing, (mine = formsOf(thing, form)));
    return names.some((name) => {
      let file = forms.get(name);
      if (file === undefined) forms.set(name, (file = form(name, thing.maker)));
      return mine.has(file);
    });
  };
}
