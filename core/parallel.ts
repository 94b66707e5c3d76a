/**
 * Works through values, so many at a time, each as soon as a place is free. Where one throws, no other is begun, those that
 * are under way are waited for, and what was thrown first is thrown.
 */
export async function inParallel<T>(
  values: readonly T[],
  width: number,
  work: (value: T) => Promise<void>,
): Promise<void> {
  let next = 0;
  let stopped = false;
  const lane = async (): Promise<void> => {
    while (!stopped && next < values.length) {
      const value = values[next++] as T;
      try {
        await work(value);
      } catch (error) {
        stopped = true;
        throw error;
      }
    }
  };
  const lanes = await Promise.allSettled(Array.from({ length: Math.max(1, width) }, lane));
  const failed = lanes.find((result) => result.status === 'rejected');
  if (failed) throw failed.reason;
}
