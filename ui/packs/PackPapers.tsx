'use client';
import { useState } from 'react';
import { Papers } from '../intake/Papers';
import type { Paper } from '../intake/model/paper';

/** The licences and read-me files that came with a pack. */
export function PackPapers({ arrival, papers }: { arrival: string; papers: Paper[] }) {
  const [chosen, setChosen] = useState(papers[0]?.id ?? 0);
  return <Papers arrival={arrival} papers={papers} chosen={chosen} onChoose={setChosen} />;
}
