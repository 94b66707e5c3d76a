/** What an item's scope may be limited by, as far as editors may keep to it. */
export const scopeConditions = ['camera', 'input', 'result'] as const;
export type ScopeCondition = (typeof scopeConditions)[number];
