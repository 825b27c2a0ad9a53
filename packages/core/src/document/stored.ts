import type { Thumbnail } from '../part/plate/outline-path';
import type { Job } from './job';

/** A stored job with the version a save must name. */
export interface JobRow {
  id: string;
  version: number;
  updatedAt: string;
  job: Job;
}

/** A stored job in a list. */
export interface JobSummary {
  id: string;
  name: string;
  version: number;
  updatedAt: string;
  thumbnail: Thumbnail;
}

/** A save that was taken, or one that came too late: the version in force, and where the late one is kept. */
export type SaveResult = { saved: true; version: number } | { saved: false; current: JobRow; keptId: string };
