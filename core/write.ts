/** What writes a project file: here by itself, so that a page can save one without what reads and checks them. */
import type { Project } from './project.ts';

export const LARGEST_FILE = 8 * 1024 * 1024;
/** The text of a project file. */
export const writeProject = (project: Project): string => JSON.stringify(project, null, 1) + '\n';
