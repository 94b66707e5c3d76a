/** Any look's file as what it computes: a table, a correction, or a chain of operations, each evaluated as its format says. */
import { strFromU8 } from 'fflate';
import { Problem } from '../problem';
import { CDL_ROOTS, readCdl } from './cdl';
import { readClf } from './clf';
import { cdlStyles } from './clf-nodes';
import { readCube } from './cube';
import { readHald } from './hald-file';
import { fromFunction, rangeOf, type Encoding, type Look, type Warning } from './look';
import { member, memberNames } from './archive';
import { sampler, type Evaluate, type Interpolation } from './sample';

export interface Program {
  format: 'cube' | 'clf' | 'cdl' | 'hald' | 'icc';
  kind: '1d' | '3d' | 'cdl' | 'chain' | 'icc';
  /** points an axis of a table, else null */ size: number | null;
  title: string;
  domain: { min: number[]; max: number[] };
  warnings: Warning[];
  /** the operations of a chain, in order */ nodes: string[];
  /** what the file itself says of it */ encoding: Encoding | null;
  /** the table, where there is one */ look: Look | null;
  /** `strength` is a factor and acts once, end to end. Where no interpolation is asked for, the file's own holds, else tetrahedral. */
  evaluate(interpolation?: Interpolation, strength?: number): Evaluate;
}

const unit = { min: [0, 0, 0], max: [1, 1, 1] };
const ofTable = (look: Look): Program => ({
  format: look.format,
  kind: look.kind,
  size: look.size,
  title: look.title,
  domain: look.domain,
  warnings: look.warnings,
  nodes: [],
  encoding: null,
  look,
  evaluate: (i, s) => sampler(look, i, s),
});

/** A program from a function in place, over a domain to which inputs are clamped; null clamps nothing. */
export function programOf(
  about: Pick<Program, 'format' | 'kind' | 'title'> & Partial<Program>,
  hold: { min: number[]; max: number[] } | null,
  make: (interpolation: Interpolation) => (v: Float64Array) => void,
): Program {
  return {
    size: null,
    domain: hold ?? unit,
    warnings: [],
    nodes: [],
    encoding: null,
    look: null,
    ...about,
    evaluate: (interpolation = 'tetrahedral', strength = 1) => {
      const run = make(interpolation);
      const values = new Float64Array(3);
      const inputs = new Float64Array(3);
      return (r, g, b, out, at) => {
        inputs[0] = r;
        inputs[1] = g;
        inputs[2] = b;
        if (hold) for (let c = 0; c < 3; c++) inputs[c] = Math.min(hold.max[c]!, Math.max(hold.min[c]!, inputs[c]!));
        values.set(inputs);
        run(values);
        for (let c = 0; c < 3; c++)
          out[at + c] = strength === 1 ? values[c]! : inputs[c]! + strength * (values[c]! - inputs[c]!);
      };
    },
  };
}

function ofClf(bytes: Uint8Array): Program {
  const clf = readClf(bytes);
  if (clf.look) return ofTable(clf.look);
  const hold = clf.domain
    ? { min: [0, 0, 0].map(() => clf.domain!.min), max: [0, 0, 0].map(() => clf.domain!.max) }
    : null;
  return programOf(
    {
      format: 'clf',
      kind: 'chain',
      title: clf.name,
      nodes: clf.nodes.map((n) => (n.style ? `${n.kind} ${n.style}` : n.kind)),
    },
    hold,
    (i) => clf.program(i),
  );
}
function ofCdl(bytes: Uint8Array): Program {
  const list = readCdl(bytes);
  const correction = list[0]!;
  return programOf(
    {
      format: 'cdl',
      kind: 'cdl',
      title: correction.id,
      warnings:
        list.length > 1
          ? [
              {
                code: 'cdl-several',
                message: `The file holds ${list.length} corrections; the first is taken.`,
                where: 'ColorCorrection',
              },
            ]
          : [],
    },
    unit,
    () => cdlStyles.Fwd!(correction),
  );
}

/** Everything but ICC profiles, which need their library: see `readAnyLook`. */
export function readProgram(bytes: Uint8Array): Program {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return ofArchive(bytes);
  if (
    (bytes[0] === 0x89 && bytes[1] === 0x50) ||
    (bytes[0] === 0x49 && bytes[1] === 0x49) ||
    (bytes[0] === 0x4d && bytes[1] === 0x4d)
  )
    return ofTable(readHald(bytes));
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
  if (/<(\w+:)?ProcessList[\s>]/.test(start)) return ofClf(bytes);
  if (CDL_ROOTS.some((r) => new RegExp(`<(\\w+:)?${r}[\\s>]`).test(start))) return ofCdl(bytes);
  if (bytes.length > 131 && start.slice(36, 40) === 'acsp')
    throw new Problem(
      'look-icc',
      'An ICC profile is read by another way.',
      'the file',
      'Take it in as an ICC profile.',
    );
  return ofTable(readCube(bytes));
}

function ofArchive(bytes: Uint8Array): Program {
  const names = memberNames(bytes);
  const inner = names?.find((n) => /\.(clf|cube)$/i.test(n));
  const about = names?.find((n) => /\.json$/i.test(n));
  const data = inner ? member(bytes, inner) : null;
  if (!data)
    throw new Problem(
      'look-none',
      'There is no table inside this archive.',
      'the archive',
      'Ask the supplier for the look again.',
    );
  const program = readProgram(data);
  if (about)
    try {
      program.title = String(
        (JSON.parse(strFromU8(member(bytes, about)!)) as { title?: string }).title ?? program.title,
      );
      if (program.look) program.look.title = program.title;
    } catch {
      /* the title is then the table's own */
    }
  return program;
}

/** The program as a 3D table (or its own table, where it has one). */
export function tableOfProgram(program: Program, size = 33): Look {
  if (program.look) return program.look;
  const evaluate = program.evaluate();
  return {
    ...fromFunction(size, program.title, (v) => evaluate(v[0]!, v[1]!, v[2]!, v, 0), program.domain),
    format: program.format === 'icc' ? 'icc' : program.format,
    warnings: program.warnings,
  };
}

/** Smallest and largest result by channel: of the table's entries, else over the nodes of 33 points an axis. */
export const rangeOfProgram = (p: Program): { min: number[]; max: number[] } => rangeOf(p.look ?? tableOfProgram(p));
