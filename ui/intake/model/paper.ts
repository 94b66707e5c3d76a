/** Papers of an arrival as they are asked for. */
import { isPlainText } from '@/core/recognise/paper';
import { CallError, OFFLINE } from '../../kit/call';

export interface Paper {
  id: number;
  path: string;
  format: string;
}

export const addressOfPaper = (arrival: string, paper: number, save = false): string =>
  `/api/arrivals/${arrival}/paper?entry=${paper}${save ? '&save' : ''}`;

/** A web page's words, without what it would show or do. */
export const wordsOfPage = (page: string): string =>
  (new DOMParser().parseFromString(page, 'text/html').body.textContent ?? '').replace(/\n{3,}/g, '\n\n').trim();

/** The text of a paper, or that another program is needed to read it. */
export async function fetchPaper(arrival: string, { id, path, format }: Paper, signal: AbortSignal): Promise<string> {
  if (!isPlainText(format)) return `A ${format.toUpperCase()} file: save it to read it in another program.`;
  const answer = await fetch(addressOfPaper(arrival, id), { signal }).catch(() => null);
  if (!answer?.ok)
    throw new CallError({
      code: OFFLINE,
      message: 'The paper could not be read.',
      where: path,
      remedy: 'Try again in a moment.',
    });
  const text = await answer.text();
  return format.startsWith('htm') ? wordsOfPage(text) : text;
}
