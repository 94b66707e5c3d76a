/** Verbs that read looks: what they are, what they do to colors, whether they are sound, whether two are the same. */
import { evaluateIcc } from '@/core/icc/look';
import { isIcc } from '@/core/icc/header';
import { assumedEncoding, isSame, pointsIn, readProgram, residual } from '@/core/look';
import { encodingNames } from '@/core/look/encoding';
import { inspect as inspectLook } from '@/core/look/inspect';
import { rangeOfProgram } from '@/core/look/program';
import { readPoints } from '../values';
import { points, strength, verb } from '../verb';
import { at, bytesOf, encodingOption, interpolationOption, interpolations, load, strengthOption } from './load';

export const info = verb({
  about: 'format, kind, size, domain, range, encoding, warnings',
  takes: '<look...>',
  each: true,
  example: "look info amber.cube 'house/*.cube'",
  run: async ({ files: [file] }) => {
    const program = await load(file);
    return {
      format: program.format,
      kind: program.kind,
      size: program.kind === 'icc' ? null : program.size,
      title: program.title,
      domain: program.domain,
      range: rangeOfProgram(program),
      encoding: program.encoding ?? assumedEncoding,
      ...(program.nodes.length ? { nodes: program.nodes } : {}),
      warnings: program.warnings,
    };
  },
});

/** Looks of numbers, and ICC looks by their own evaluation; one row of three results for each of three values. */
async function evaluated(
  bytes: Uint8Array,
  values: Float64Array,
  interpolation: ReturnType<typeof interpolationOption>,
  factor: number,
): Promise<Float64Array> {
  if (isIcc(bytes)) return evaluateIcc(bytes, values, factor);
  const evaluate = readProgram(bytes).evaluate(interpolation, factor);
  const results = new Float64Array(values.length);
  for (let i = 0; i < values.length; i += 3) evaluate(at(values, i), at(values, i + 1), at(values, i + 2), results, i);
  return results;
}

export const evaluate = verb({
  about: 'points through the look',
  takes: '<look...>',
  each: true,
  example: 'look eval amber.cube --points points.json --strength 50 --json',
  options: {
    points,
    interpolation: { value: 'HOW', about: 'between the points of a table', words: interpolations },
    strength,
    input: { value: 'E', about: 'what the points are given in', words: encodingNames },
    output: { value: 'E', about: 'what the results are wanted in', words: encodingNames },
  },
  run: async ({ files: [file], options }) => {
    const bytes = bytesOf(file);
    const rows = readPoints(options.points);
    const factor = strengthOption(options.strength);
    const interpolation = interpolationOption(options.interpolation);
    const into = encodingOption(options.input, 'input');
    const out = encodingOption(options.output, 'output');
    // points given in another encoding than the look's are brought into it, and results out of it
    const values = Float64Array.from(rows.flat());
    if (into) for (let i = 0; i < values.length; i += 3) into.toSrgb(values, i);
    const results = await evaluated(bytes, values, interpolation, factor);
    if (out) for (let i = 0; i < results.length; i += 3) out.fromSrgb(results, i);
    return rows.map((_, i) => [...results.slice(i * 3, i * 3 + 3)]);
  },
});

export const inspect = verb({
  about: 'a verdict with findings and figures: bands, clipped ends, tinted neutrals, folds',
  takes: '<look...>',
  each: true,
  example: 'look inspect amber.cube',
  run: async ({ files: [file] }) => {
    const program = await load(file);
    const { verdict, findings, figures } = inspectLook(program.evaluate(), program.look?.table ?? null);
    return { verdict, findings, figures };
  },
});

export const same = verb({
  about: 'whether two looks are the same by effect, with their difference',
  takes: '<look> <other>',
  example: 'look same amber.cube amber-of-last-year.cube',
  options: { points },
  run: async ({ files: [file, other], options }) => {
    const program = await load(file);
    const second = await load(other);
    const over = options.points ? Float64Array.from(readPoints(options.points).flat()) : pointsIn(program.domain);
    const difference = residual(program.evaluate(), second.evaluate(), over);
    return { ...difference, same: isSame(difference) };
  },
});
