/** The files of the same arrival that were looked at before, and those that do nearly the same. */
import { nearPairs, type Tolerance } from '../../look/fingerprint';
import { designName } from '../likeness';
import { addTo, printsOf } from './prints';
import { folderOf, groupOf, type Incoming, type Proposal } from './types';

export class EarlierEntries {
  private readonly bySha = new Map<string, Incoming>();
  private readonly byContent = new Map<string, Incoming>();
  private readonly byDesign = new Map<string, Incoming>();
  private readonly taken = new Set<number>();
  private readonly near: Map<number, Incoming[]>;

  constructor(entries: readonly Incoming[], tolerance: Tolerance) {
    this.near = nearlySame(entries, tolerance);
  }

  /** A file that is no copy is what later ones are compared with. */
  add(incoming: Incoming, proposal: Proposal): void {
    if (proposal.outcome === 'duplicate') return;
    const { sha, kind, content } = incoming;
    if (!this.bySha.has(sha)) this.bySha.set(sha, incoming);
    if (content && !this.byContent.has(kind + content)) this.byContent.set(kind + content, incoming);
    const design = `${kind} ${designName(incoming.title, folderOf(incoming.path)).base}`;
    if (!this.byDesign.has(design) && proposal.outcome !== 'variant') this.byDesign.set(design, incoming);
    this.taken.add(incoming.id);
  }

  sameBytes = ({ sha }: Incoming): Incoming | undefined => this.bySha.get(sha);

  sameContent = ({ kind, content }: Incoming): Incoming | undefined =>
    content ? this.byContent.get(kind + content) : undefined;

  ofDesign = (kind: string, name: string): Incoming | undefined => this.byDesign.get(`${kind} ${name}`);

  /** Those before it that do nearly the same, as far as a search among fingerprints tells. */
  nearlySame = ({ id }: Incoming): Incoming[] => (this.near.get(id) ?? []).filter((one) => this.taken.has(one.id));
}

function nearlySame(entries: readonly Incoming[], tolerance: Tolerance): Map<number, Incoming[]> {
  const groups = new Map<string, Incoming[]>();
  const pairs = new Map<string, Incoming[]>();
  for (const incoming of entries) if (incoming.fingerprint) addTo(groups, groupOf(incoming), incoming);
  for (const list of groups.values())
    for (const [i, j] of nearPairs(printsOf(list), list.length, tolerance)) {
      const one = list[i];
      const other = list[j];
      if (!one || !other) continue;
      addTo(pairs, String(one.id), other);
      addTo(pairs, String(other.id), one);
    }
  return new Map([...pairs].map(([id, list]) => [Number(id), list]));
}
