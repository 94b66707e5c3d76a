/** Whether a mapping reads its samples and writes them again as they were, and what it leaves unknown. */
import { writePreset, type Changed, type Language } from '../write';
import { readSteps } from '../container';
import { applyMapping, type ReadPreset } from '../mapping';
import type { NotWritten } from '../mapping-write';
import { Problem, type ToldProblem } from '../../problem';
import type { Sample } from './samples';

export interface CheckedSample {
  name: string;
  /** null where it could not be read */ read: ReadPreset | null;
  /** what the language cannot say again, or says otherwise, in an empty preset of its own */ changed: Changed[];
  left: NotWritten[];
  problem: ToldProblem | null;
}

/** A sample through the mapping, into the empty preset, and through the mapping again. */
export function checkSample(language: Language, sample: Sample, editor: string): CheckedSample {
  const nothing = { name: sample.name, read: null, changed: [], left: [], problem: null };
  try {
    const read = applyMapping(language.mapping, readSteps(language.container, sample.bytes, language.form));
    if (!language.template) return { ...nothing, read };
    try {
      const { changed, left } = writePreset(language, read.settings, { title: read.name }, editor);
      return { ...nothing, read, changed, left };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return { ...nothing, read, problem: error.toJSON() };
    }
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { ...nothing, problem: error.toJSON() };
  }
}
