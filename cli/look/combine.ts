/** Verbs that make one look of others: one after the other, mixed, undone. */
import { pointsIn, residual, sampler, type Evaluate } from '@/core/look';
import { blend as blendLooks, compose as composeLooks, invertLook } from '@/core/look/algebra';
import { fromRows } from '@/core/look/look';
import { outputPath, writeOutput } from '../files';
import { numberOption, sizeOption } from '../values';
import { size, title, verb, writes } from '../verb';
import { at, load } from './load';
import { readBack, tableWriter, unit } from './write';

interface Made {
  output: string;
  size: number;
  title: string;
}

/** A function as a table of 0…1, in a .cube or .clf file, with the error of its table. */
async function written(
  evaluate: Evaluate,
  { output, size: points, title: name }: Made,
): Promise<{ residual: unknown }> {
  const write = tableWriter(output);
  const data = write(
    fromRows(points, name, (row, count) => {
      for (let i = 0; i < count; i += 3) evaluate(at(row, i), at(row, i + 1), at(row, i + 2), row, i);
    }),
  );
  await writeOutput(output, data);
  return { residual: residual(evaluate, readBack(data).evaluate(), pointsIn(unit)) };
}

const share = { value: 'SHARE', about: 'of the second, 0 to 1; half without' } as const;

export const compose = verb({
  about: 'two looks, one after the other, as one table with its error',
  takes: '<look> <then>',
  example: 'look compose amber.cube fade.cube -o amber-fade.cube',
  options: { ...writes, size, title },
  run: async ({ files: [first, second], options }) => {
    const made = { output: outputPath(options), size: sizeOption(options.size, 129, 33) };
    const one = await load(first);
    const other = await load(second);
    const name = options.title ?? `${one.title || 'first'} then ${other.title || 'second'}`;
    return written(composeLooks(one.evaluate(), other.evaluate()), { ...made, title: name });
  },
});

export const blend = verb({
  about: 'two looks mixed, as one table with its error',
  takes: '<look> <other>',
  example: 'look blend amber.cube slate.cube --share 0.3 -o dusk.cube',
  options: { ...writes, size, title, share },
  run: async ({ files: [first, second], options }) => {
    const made = { output: outputPath(options), size: sizeOption(options.size, 129, 33) };
    const of = numberOption(options.share, 'share', 0, 1, 0.5);
    const one = await load(first);
    const other = await load(second);
    const name = options.title ?? `${one.title || 'first'} and ${other.title || 'second'}`;
    return written(blendLooks(one.evaluate(), other.evaluate(), of), { ...made, title: name });
  },
});

export const invert = verb({
  about: 'the inverse as a table; what cannot be undone as residual, and the percent of nodes that nothing reaches',
  takes: '<look>',
  example: 'look invert amber.cube -o amber-undone.cube',
  options: { ...writes, size, title },
  run: async ({ files: [file], options }) => {
    const output = outputPath(options);
    const points = sizeOption(options.size, 65, 33);
    const program = await load(file);
    const inverse = invertLook(program.evaluate(), options.title ?? `${program.title || 'look'}, undone`, points);
    const { look } = inverse;
    const { residual: table } = await written(sampler(look), { output, size: look.size, title: look.title });
    return { residual: inverse.residual, unreached: inverse.unreached, table };
  },
});
