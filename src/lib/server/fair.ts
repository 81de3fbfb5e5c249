/** Work that is done for many who ask: so many pieces at once, and each asker in turn. */

/** @param most at once; @returns what puts a piece of work into the queue of who asks */
export function fair(most: number): <T>(asker: string, work: () => Promise<T>) => Promise<T> {
  const queues = new Map<string, (() => Promise<void>)[]>();
  let going = 0;
  const next = (): void => {
    for (const [asker, queue] of queues) {
      if (going >= most) return;
      const work = queue.shift()!;
      // who was served stands behind the others
      queues.delete(asker);
      if (queue.length) queues.set(asker, queue);
      going++;
      void work().finally(() => {
        going--;
        next();
      });
      return next();
    }
  };
  return (asker, work) =>
    new Promise((done, fail) => {
      const queue = queues.get(asker) ?? [];
      queue.push(() => work().then(done, fail));
      queues.set(asker, queue);
      next();
    });
}
