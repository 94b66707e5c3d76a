/** CGATS.17 text: measured values of a chart. */
import { recognised, type Format } from '../recognised';

export const cgats: Format = {
  id: 'cgats',
  find: (file) => {
    const { start } = file;
    const hasFormat = /NUMBER_OF_SETS\s+\d+/.test(start) && /BEGIN_DATA_FORMAT/.test(start);
    if (!/^\s*CGATS(\.\d+)?\s/.test(start) && !hasFormat) return null;
    return recognised(file, 'chart', 'cgats', 'measured values of a chart', {
      evidence: ['CGATS text with a data format'],
    });
  },
};
