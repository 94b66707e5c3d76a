'use client';
/** The whole preset language as JSON, for what the table has no place for. It counts once it keeps the rules. */
import { useState } from 'react';
import { parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { Problem } from '@/core/problem';
import { useAction } from '../kit/action';
import { Notice } from '../kit/Notice';

interface Props {
  descriptor: Descriptor;
  onDescribe: (descriptor: Descriptor) => void;
}

function parsed(text: string): Descriptor['presets'] {
  try {
    return JSON.parse(text) as Descriptor['presets'];
  } catch (error) {
    throw new Problem(
      'mapping-json',
      `This is no JSON: ${(error as Error).message.slice(0, 120)}`,
      'the mapping as JSON',
      'Correct it, or put it back as it was.',
    );
  }
}

export function MappingText({ descriptor, onDescribe }: Props) {
  const [text, setText] = useState(() => JSON.stringify(descriptor.presets, null, 2));
  const action = useAction();
  const apply = () =>
    action.run(async () => {
      const next = JSON.parse(JSON.stringify({ ...descriptor, presets: parsed(text) })) as unknown;
      onDescribe(await Promise.resolve(parseDescriptor(next)));
    });
  return (
    <details className="mt-4">
      <summary className="cursor-pointer text-soft">The mapping as JSON</summary>
      <p className="my-1 max-w-[760px] text-[12px] text-soft">
        For what the table cannot say: an object or a list that is put together from several properties, sums, a range,
        the sign between headings, where the creator and the rights stand.
      </p>
      <textarea
        className="field h-[320px] w-full max-w-[860px] font-mono text-[12px]"
        aria-label="The mapping as JSON"
        spellCheck={false}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Notice problem={action.problem} className="my-2 max-w-[860px]" />
      <p>
        <button className="button" onClick={() => void apply()}>
          Take this mapping
        </button>
      </p>
    </details>
  );
}
