type Work = () => Promise<void>;

/**
 * Does what it is given one at a time. Given a work while one is being done, it does that once more afterwards (the
 * newest of those given): the one under way may have looked before whatever is asked for now.
 */
export function oneAtATime(): (work: Work) => Promise<void> {
  let underWay: Promise<void> | null = null;
  let next: Work | null = null;
  const turn = async () => {
    while (next) {
      const work: Work = next;
      next = null;
      await work();
    }
  };
  return (work) => {
    next = work;
    underWay ??= turn().finally(() => (underWay = null));
    return underWay;
  };
}
