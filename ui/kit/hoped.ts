'use client';
import { useState } from 'react';

/**
 * A value that the server keeps and a person changes: what was asked for is shown at once, and gives way to what the server
 * says as soon as that comes anew.
 * @param said as the page came with it; told apart by identity, so that a list or a map has to stay the same while it does
 */
export function useHoped<T>(said: T): [T, (value: T) => void] {
  const [state, setState] = useState({ said, hoped: said });
  if (state.said !== said) setState({ said, hoped: said });
  const hoped = state.said === said ? state.hoped : said;
  return [hoped, (value) => setState({ said, hoped: value })];
}
