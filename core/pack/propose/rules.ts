/**
 * By what an incoming file is told to be a copy, a version or a variant: one rule each, in the order in which they count.
 * The first that finds something decides; where none does, the file is new.
 */
import { designName, nameLikeness, settingLikeness } from '../likeness';
import { baseName } from '../../recognise';
import { between, isOtherLanguage, isWithin, languageMark, nextOf, ofEntry, ofHeld, type Rule } from './matching';
import { titleCaution, titleRule } from './title-rules';
import { folderOf, told, type Incoming } from './types';

const sameBytes: Rule = {
  id: 'the same bytes as something held',
  find: (incoming, { held }) => {
    const same = held.bySha.get(incoming.sha);
    const words = same?.newest ? 'byte for byte the same' : 'byte for byte an older version of it';
    return same ? ofHeld(same, 'duplicate', 1, { by: 'bytes', words }) : null;
  },
};

const sameBytesHere: Rule = {
  id: 'the same bytes as another file of the arrival',
  find: (incoming, { earlier }) => {
    const first = earlier.sameBytes(incoming);
    if (!first) return null;
    return ofEntry(first, 'duplicate', 1, {
      by: 'bytes',
      words: `byte for byte ${first.path} in this arrival`,
    });
  },
};

const sameContent: Rule = {
  id: 'the same content as something held',
  find: (incoming, { held }) => {
    const same = held.sameContent(incoming);
    if (!same) return null;
    if (isOtherLanguage(incoming, same))
      return ofHeld(same, 'variant', 0.9, {
        by: 'content',
        mark: languageMark(incoming),
        words: 'the same settings in another editor’s language',
      });
    const what = incoming.kind === 'preset' ? 'settings' : 'table';
    return ofHeld(same, 'duplicate', 1, { by: 'content', words: `the same ${what}, written otherwise` });
  },
};

const sameContentHere: Rule = {
  id: 'the same content as another file of the arrival',
  find: (incoming, { earlier }) => {
    const same = earlier.sameContent(incoming);
    if (!same) return null;
    if (isOtherLanguage(incoming, same))
      return ofEntry(same, 'variant', 0.9, {
        by: 'content',
        mark: languageMark(incoming),
        words: `the same settings as ${same.path}, in another editor’s language`,
      });
    return ofEntry(same, 'duplicate', 1, {
      by: 'content',
      words: `the same content as ${same.path} in this arrival, written otherwise`,
    });
  },
};

const sameIdentity: Rule = {
  id: 'the same identity inside',
  find: (incoming, context) => {
    const same = context.held.sameIdentity(incoming);
    if (!same) return null;
    return nextOf(incoming, same, 0.97, {
      by: 'identity',
      ...between(incoming, same, context),
      words: 'it has the same identity inside',
    });
  },
};

/** ΔE00 in the mean up to which a file of the same name is taken to be the same thing, changed. */
const KINDRED = 6;

const sameFileName: Rule = {
  id: 'the same file name, under another title',
  find: (incoming, context) => {
    const same = context.held.sameFileName(incoming);
    if (!same || isOtherLanguage(incoming, same)) return null;
    const distance = between(incoming, same, context);
    if (distance && distance.mean > KINDRED) return null;
    const words = 'the same file name, under another title';
    const proposal = nextOf(incoming, same, 0.7, { by: 'file name', ...distance, words });
    return { ...proposal, caution: titleCaution(incoming, context) };
  },
};

const sameEffect: Rule = {
  id: 'the same effect as something held',
  find: (incoming, { held, tolerance }) => {
    const same = held.sameEffect(incoming, tolerance);
    if (!same) return null;
    const words = 'another name, the same effect';
    return ofHeld(same.held, 'duplicate', 0.85, { by: 'effect', ...told(same.distance), words });
  },
};

/** A preset of fewer settings is like too many others. */
const FEW_SETTINGS = 5;

const mostSettings: Rule = {
  id: 'most of its settings are the same, under a like name',
  find: (incoming, context) => {
    const { settings } = incoming;
    if (!settings || Object.keys(settings).length < FEW_SETTINGS) return null;
    for (const held of context.held.ofFormat(incoming)) {
      if (!held.settings || nameLikeness(held.title, incoming.title) < 0.45) continue;
      if (settingLikeness(held.settings, settings) < 0.7) continue;
      return nextOf(incoming, held, 0.6, {
        by: 'likeness',
        ...between(incoming, held, context),
        words: 'most of its settings are the same, and its name is much alike',
      });
    }
    return null;
  },
};

/** What sets it apart from a file of the same design; null where nothing does. */
function markAgainst(incoming: Incoming, twin: Incoming): string | null {
  const { mark } = designName(incoming.title, folderOf(incoming.path));
  const marked = mark !== designName(twin.title, folderOf(twin.path)).mark;
  if (marked && mark) return mark;
  if (isOtherLanguage(incoming, twin) || (marked && incoming.format !== twin.format)) return languageMark(incoming);
  return marked ? 'another variant' : null;
}

const sameDesignHere: Rule = {
  id: 'the same design as another file of the arrival',
  find: (incoming, context) => {
    const { base } = designName(incoming.title, folderOf(incoming.path));
    const twin = context.earlier.ofDesign(incoming.kind, base);
    const mark = twin && markAgainst(incoming, twin);
    if (!twin || !mark) return null;
    return ofEntry(twin, 'variant', 0.8, {
      by: 'design',
      mark,
      ...between(incoming, twin, context),
      words: `the same design as ${baseName(twin.path)}, ${mark}`,
    });
  },
};

const sameEffectHere: Rule = {
  id: 'the same effect as another file of the arrival',
  find: (incoming, { earlier, distance, tolerance }) => {
    for (const other of earlier.nearlySame(incoming)) {
      if (!incoming.fingerprint || !other.fingerprint) continue;
      const apart = distance(incoming.fingerprint, other.fingerprint);
      if (!isWithin(apart, tolerance)) continue;
      return ofEntry(other, 'duplicate', 0.85, {
        by: 'effect',
        ...told(apart),
        words: `the same effect as ${other.path} in this arrival`,
      });
    }
    return null;
  },
};

export const rules: readonly Rule[] = [
  sameBytes,
  sameBytesHere,
  sameContent,
  sameContentHere,
  sameIdentity,
  titleRule,
  sameFileName,
  sameEffect,
  mostSettings,
  sameDesignHere,
  sameEffectHere,
];
