/** What the shelf shows of a lesson. */
import type { Told } from '../../../core/errand/task.ts';

export type OfLesson = { name: Told; objective: Told; steps: number };
export type LessonCard = OfLesson & {
  id: string;
  ships: boolean;
  /** one may change it */ own: boolean;
  changedAt: number;
};
