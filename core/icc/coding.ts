/** What device values of an ICC input profile are of balanced camera values. The format does not say it: ours do in their description, others are taken as linear. */
export type DeviceCoding = 'linear' | 'square root';
const MARK = 'of square root values';
export const describedAs = (title: string): string => `${title}, ${MARK}`;
export const codingSaid = (description: string): DeviceCoding =>
  description.includes(MARK) ? 'square root' : 'linear';
