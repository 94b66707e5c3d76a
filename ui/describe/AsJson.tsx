'use client';
/** The whole of a descriptor as JSON, for what the form does not show; what is typed counts once it can be read. */
import { useState } from 'react';
import type { Descriptor } from '@/core/editor/descriptor';
import { Field } from '../kit/Field';
import { fromText } from './model/draft';

interface Props {
  draft: Descriptor;
  onChange: (draft: Descriptor) => void;
}

export function AsJson({ draft, onChange }: Props) {
  const [text, setText] = useState(() => JSON.stringify(draft, null, 2));
  const [fault, setFault] = useState<string | undefined>(undefined);
  return (
    <Field label="Descriptor as JSON" problem={fault}>
      {(attributes) => (
        <textarea
          {...attributes}
          className={`${attributes.className} h-[480px] py-2 font-mono text-[12.5px] leading-[18px]`}
          spellCheck={false}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            const read = fromText(event.target.value);
            setFault('fault' in read ? read.fault : undefined);
            if ('draft' in read) onChange(read.draft);
          }}
        />
      )}
    </Field>
  );
}
