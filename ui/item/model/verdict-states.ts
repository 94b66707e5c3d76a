/** How a verdict of an inspection is drawn. */
export const verdictStates = { good: 'approved', caution: 'draft', poor: 'failed' } as const;
