/** A verb of the command line as data: from it follow how it is parsed, its help, its completion and how its answer is told. */

export interface Option {
  /** what stands behind it, as a word in capitals; a switch where there is none */ value?: string;
  about: string;
  short?: string;
  /** it may be given more than once */ many?: true;
  /** the words that it takes, where they are few: offered by completion */ words?: readonly string[];
}
export type Options = Readonly<Record<string, Option>>;

/** What was typed behind the options. */
export type Values<O extends Options> = {
  [Name in keyof O]: O[Name] extends { value: string }
    ? O[Name] extends { many: true }
      ? string[]
      : string | undefined
    : boolean;
};

export interface Given<O extends Options> {
  /** the arguments: files with their patterns filled in, or names */ files: string[];
  options: Values<O>;
}

export interface Verb<O extends Options = Options> {
  /** what it does, in a few words */ about: string;
  /** its arguments as help shows them: "<look...>" is one or more */ takes?: string;
  /** its arguments are no files: they are handed on as typed, "-" and "*" too */ names?: true;
  options?: O;
  /** one that works, without the program's name */ example: string;
  /** each argument is a matter of its own: one result a file, and what fails does not stop the rest */ each?: true;
  run: (given: Given<O>) => Promise<unknown>;
}

/** A verb whose options are known by name within it. */
export const verb = <const O extends Options = Record<string, never>>(definition: Verb<O>): Verb =>
  definition as unknown as Verb;

/** A noun; its verbs are fetched when one is used, so that each answers at once. */
export interface Noun {
  about: string;
  verbs: () => Promise<Record<string, Verb>>;
}

/** What is done to the whole, and so needs no noun. */
export interface Alone {
  about: string;
  verb: () => Promise<Verb>;
}

// --- options that several verbs have

export const output = { value: 'FILE', short: 'o', about: 'where it is written; - is standard output' } as const;
export const force = { about: 'overwrite what is there' } as const;
/** For verbs that write a file. */
export const writes = { output, force } as const;
export const points = { value: 'FILE', about: 'a JSON array of number triples; - is standard input' } as const;
export const size = { value: 'N', about: 'points an axis' } as const;
export const title = { value: 'TEXT', about: 'its title' } as const;
export const neutral = { value: 'R,G,B', about: 'the camera’s values of a neutral' } as const;
export const kelvin = { value: 'K', about: 'a temperature, 2000 to 50000' } as const;
export const strength = { value: 'PERCENT', about: '0 to 400; 100 is as made' } as const;
