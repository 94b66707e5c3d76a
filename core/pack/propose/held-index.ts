/** Indexes over what is held, made once for an arrival. */
import { near, type Tolerance } from '../../look/fingerprint';
import { designName, foldName } from '../likeness';
import { closest } from './matching';
import { addTo, printsOf } from './prints';
import { groupOf, type Distance, type Held, type Incoming } from './types';

export class HeldIndex {
  readonly bySha = new Map<string, Held>();
  private readonly byContent = new Map<string, Held>();
  private readonly byIdentity = new Map<string, Held[]>();
  private readonly byTitle = new Map<string, Held[]>();
  private readonly byFile = new Map<string, Held[]>();
  private readonly prints = new Map<string, { all: Int16Array; list: Held[] }>();

  constructor(held: readonly Held[]) {
    const printed = new Map<string, Held[]>();
    for (const one of held) {
      this.addContent(one);
      if (!one.newest) continue;
      this.addNames(one);
      if (one.fingerprint) addTo(printed, groupOf(one), one);
    }
    for (const [group, list] of printed) this.prints.set(group, { all: printsOf(list), list });
  }

  /** Of several with the same content, the newest is the one to name. */
  private addContent(one: Held): void {
    if (!this.bySha.has(one.sha) || one.newest) this.bySha.set(one.sha, one);
    const content = one.content && one.kind + one.content;
    if (content && (!this.byContent.has(content) || one.newest)) this.byContent.set(content, one);
  }

  private addNames(one: Held): void {
    if (one.internalId) addTo(this.byIdentity, `${one.kind} ${one.internalId}`, one);
    const names = new Set([one.title, ...one.aliases].map((title) => designName(title).base));
    for (const name of names) addTo(this.byTitle, `${one.kind} ${name}`, one);
    addTo(this.byFile, `${one.kind} ${foldName(one.fileName)}`, one);
  }

  sameContent = ({ kind, content }: Incoming): Held | undefined =>
    content ? this.byContent.get(kind + content) : undefined;

  sameIdentity(incoming: Incoming): Held | undefined {
    const { kind, internalId } = incoming;
    return internalId ? closest(incoming, this.byIdentity.get(`${kind} ${internalId}`) ?? []) : undefined;
  }

  /** Those that bear the name of a design, or have borne it. */
  ofDesign = (kind: string, name: string): readonly Held[] => this.byTitle.get(`${kind} ${name}`) ?? [];

  sameFileName(incoming: Incoming): Held | undefined {
    const { kind, path } = incoming;
    return closest(incoming, this.byFile.get(`${kind} ${foldName(path.split('/').pop() ?? path)}`) ?? []);
  }

  /** All that could be a revision of something under a like name. */
  *ofFormat({ kind, format }: Incoming): Generator<Held> {
    for (const list of this.byTitle.values())
      for (const one of list) if (one.kind === kind && one.format === format) yield one;
  }

  /** The nearest that counts as the same effect. */
  sameEffect(incoming: Incoming, tolerance: Tolerance): { held: Held; distance: Distance } | null {
    const prints = this.prints.get(groupOf(incoming));
    if (!prints || !incoming.fingerprint) return null;
    const [hit] = near(incoming.fingerprint, prints.all, prints.list.length, tolerance);
    const held = hit && prints.list[hit.index];
    return held ? { held, distance: { mean: hit.mean, p95: hit.p95, max: hit.max } } : null;
  }
}
